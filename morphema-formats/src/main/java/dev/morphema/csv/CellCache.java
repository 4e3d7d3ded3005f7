package dev.morphema.csv;

import dev.morphema.value.TextValue;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * Remembers the short texts of one column, many of which hold few different ones: codes, days, names of ships. A text that
 * comes again is the same object, which costs nothing to make and little to look up: its bytes are taken as two numbers.
 * Gives up on a column of ever new texts. Not thread-safe.
 */
final class CellCache {
    private static final VarHandle NUMBERS =
            MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

    private static final int SIZE = 1 << 11;
    private static final int LONGEST = 2 * Long.BYTES;
    private static final int TRIES = 1 << 10;
    private static final long MIX = 0x9E3779B97F4A7C15L;

    /** For each place the first and the second eight bytes of its text. */
    private final long[] keys = new long[SIZE * 2];

    private final @Nullable TextValue[] values = new TextValue[SIZE];
    private int tries;
    private int hits;
    private boolean useless;

    /**
     * {@return the text of some bytes, all of which are ASCII and at least one}
     *
     * @param plain whether all are allowed in a plain text
     */
    TextValue text(byte[] bytes, int start, int end, boolean plain) {
        int length = end - start;
        if (useless || length > LONGEST || start + LONGEST > bytes.length) {
            return made(bytes, start, end, plain);
        }
        if (++tries == TRIES) {
            useless = hits < tries / 2;
            tries = 0;
            hits = 0;
        }
        long first = (long) NUMBERS.get(bytes, start);
        long second = 0;
        if (length > Long.BYTES) {
            second = (long) NUMBERS.get(bytes, start + Long.BYTES) & -1L >>> -8 * length;
        } else {
            first &= -1L >>> -8 * length;
        }
        long mixed = (first + second * MIX) * MIX;
        int place = (int) (mixed >>> 32 ^ mixed >>> 53) & SIZE - 1;
        if (!holds(place, first, second, length)) {
            int other = place ^ 1;
            if (!holds(other, first, second, length)) {
                int free = values[place] == null ? place : place ^ (tries & 1);
                TextValue made = made(bytes, start, end, plain);
                keys[2 * free] = first;
                keys[2 * free + 1] = second;
                values[free] = made;
                return made;
            }
            place = other;
        }
        hits++;
        return values[place];
    }

    private boolean holds(int place, long first, long second, int length) {
        TextValue value = values[place];
        return keys[2 * place] == first && keys[2 * place + 1] == second && value != null && value.length() == length;
    }

    private static TextValue made(byte[] bytes, int start, int end, boolean plain) {
        if (plain) {
            return TextValue.ofPlain(bytes, start, end);
        }
        // All characters are ASCII, so this encoding, the fastest to read, is as good as any.
        return TextValue.of(new String(bytes, start, end - start, StandardCharsets.ISO_8859_1));
    }
}
