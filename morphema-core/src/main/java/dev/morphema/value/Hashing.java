package dev.morphema.value;

import java.security.SecureRandom;
import java.util.List;

/**
 * Hashes of what comes from inputs. They are other ones in each program, so that nobody can make an
 * input whose names or keys all have the same; and nothing that is written depends on them.
 */
public final class Hashing {
    private static final int CHARS_OF_A_WORD = 4;

    private static final long FIRST;
    private static final long SECOND;

    static {
        SecureRandom random = new SecureRandom();
        FIRST = random.nextLong();
        SECOND = random.nextLong() | 1;
    }

    private Hashing() {}

    /** {@return the hash of a text} */
    static int of(String text) {
        int length = text.length();
        long mixed = FIRST ^ length;
        int i = 0;
        for (; i + CHARS_OF_A_WORD <= length; i += CHARS_OF_A_WORD) {
            long word = text.charAt(i)
                    | (long) text.charAt(i + 1) << 16
                    | (long) text.charAt(i + 2) << 32
                    | (long) text.charAt(i + 3) << 48;
            mixed = step(mixed, word);
        }
        long rest = 0;
        for (; i < length; i++) {
            rest = rest << Character.SIZE | text.charAt(i);
        }
        return folded(step(mixed, rest));
    }

    /** {@return the hash of some bytes} */
    public static int of(byte[] bytes, int from, int to) {
        long mixed = FIRST ^ to - from;
        int i = from;
        for (; i + Long.BYTES < to; i += Long.BYTES) {
            mixed = step(mixed, EightBytes.at(bytes, i));
        }
        boolean enough = i < to && i + Long.BYTES <= bytes.length;
        return folded(step(mixed, enough ? EightBytes.first(EightBytes.at(bytes, i), to - i) : few(bytes, i, to)));
    }

    /** The same as if there were eight bytes. */
    private static long few(byte[] bytes, int from, int to) {
        long word = 0;
        for (int i = to - 1; i >= from; i--) {
            word = word << Byte.SIZE | bytes[i] & 0xFF;
        }
        return word;
    }

    /** {@return the hash of parts that have good hashes themselves} */
    static int of(List<?> parts) {
        long mixed = start();
        for (Object part : parts) {
            mixed = step(mixed, part.hashCode());
        }
        return folded(mixed);
    }

    /** {@return the hash of two numbers} */
    public static int of(long a, long b) {
        long x = a ^ FIRST;
        long y = b ^ SECOND;
        return folded(Math.multiplyHigh(x, y) ^ x * y);
    }

    /** {@return what a hash of many numbers begins with} */
    public static long start() {
        return FIRST;
    }

    /** {@return what it is after one number more} */
    public static long step(long mixed, long number) {
        long x = mixed ^ number;
        return Math.multiplyHigh(x, SECOND) ^ x * SECOND;
    }

    /** {@return the hash that many numbers come to} */
    public static int folded(long mixed) {
        return (int) (mixed ^ mixed >>> Integer.SIZE);
    }
}
