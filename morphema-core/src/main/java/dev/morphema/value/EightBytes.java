package dev.morphema.value;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Looks at eight bytes in one step, as one number of which the first byte is the lowest. Marks are
 * numbers with the highest bit of bytes that were looked for: surely of the first, and perhaps
 * wrongly of some after it.
 */
public final class EightBytes {
    private static final VarHandle NUMBERS =
            MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST_BITS = 0x8080808080808080L;

    private EightBytes() {}

    /** {@return the bytes from a place on, of which there must be eight} */
    public static long at(byte[] bytes, int place) {
        return (long) NUMBERS.get(bytes, place);
    }

    /** Puts eight bytes at a place, of which there must be eight. */
    public static void put(byte[] bytes, int place, long eight) {
        NUMBERS.set(bytes, place, eight);
    }

    /**
     * Copies bytes that are mostly few: for these a loop, or a call to copy them, would take longer
     * to begin than to go through.
     *
     * @param from where they begin, with fifteen more behind it
     * @param to where they go, with room for fifteen more behind it
     */
    public static void copy(byte[] bytes, int from, byte[] into, int to, int length) {
        if (length > 2 * Long.BYTES) {
            System.arraycopy(bytes, from, into, to, length);
        } else {
            copySixteen(bytes, from, into, to);
        }
    }

    /** Copies sixteen bytes, of which there are as many in both. */
    static void copySixteen(byte[] bytes, int from, byte[] into, int to) {
        put(into, to, at(bytes, from));
        put(into, to + Long.BYTES, at(bytes, from + Long.BYTES));
    }

    /** {@return eight times the same byte} */
    public static long all(int b) {
        return (b & 0xFF) * ONES;
    }

    /** {@return marks of the bytes that are the same in both} */
    public static long same(long eight, long other) {
        long different = eight ^ other;
        return different - ONES & ~different & HIGHEST_BITS;
    }

    /** {@return marks of the bytes below one of ASCII, which is given eight times} */
    public static long below(long eight, long limits) {
        return eight - limits & ~eight & HIGHEST_BITS;
    }

    /** {@return marks of the bytes that are not in ASCII} */
    public static long beyondAscii(long eight) {
        return eight & HIGHEST_BITS;
    }

    /** {@return the place of the first mark, from 0 to 7; 8 if there is none} */
    public static int first(long marks) {
        return Long.numberOfTrailingZeros(marks) / Byte.SIZE;
    }

    /**
     * {@return the bytes before the first mark, and of the marked one all but the highest bit;
     * zeros after them}
     */
    public static long before(long eight, long marks) {
        return eight & (marks & -marks) - 1;
    }

    /** {@return the first bytes, from 1 to 8, and zeros after them} */
    public static long first(long eight, int count) {
        return eight & -1L >>> -Byte.SIZE * count;
    }

    /** {@return the first bytes of one, from 1 to 8, and after them those of another} */
    public static long first(long eight, int count, long after) {
        long ofFirst = -1L >>> -Byte.SIZE * count;
        return eight & ofFirst | after & ~ofFirst;
    }
}
