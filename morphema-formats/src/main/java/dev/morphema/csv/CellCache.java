package dev.morphema.csv;

import dev.morphema.value.TextValue;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Remembers the short texts of one column, many of which hold few different ones: codes, days, names of ships. A text that
 * comes again is the same object, which costs nothing to make and little to look up: its bytes are taken as two numbers.
 * Gives up on a column of ever new texts. Not thread-safe.
 */
final class CellCache {
    private static final VarHandle NUMBERS =
            MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

    private static final int LONGEST = 2 * Long.BYTES;
    private static final int TRIES = 1 << 10;
    private static final long MIX = 0x9E3779B97F4A7C15L;

    /** For each place the first and the second eight bytes of its text, and zeros after it. */
    private final long[] keys;

    private final @Nullable TextValue[] values;
    private int tries;
    private int hits;
    private boolean useless;

    /** The last text: in files in some order the next is often the same. */
    private long lastFirst;

    private long lastSecond;
    private TextValue last = TextValue.EMPTY;

    /** @param size for how many texts there is room, a power of two from 2 on */
    CellCache(int size) {
        keys = new long[size * 2];
        values = new TextValue[size];
    }

    /** {@return the text of some bytes, all of which are {@linkplain TextValue#isPlain plain}, and at least one} */
    TextValue text(byte[] bytes, int start, int end) {
        int length = end - start;
        if (length > LONGEST || start + LONGEST > bytes.length) {
            return TextValue.ofPlain(bytes, start, end);
        }
        long first = (long) NUMBERS.get(bytes, start);
        long second = 0;
        if (length > Long.BYTES) {
            second = (long) NUMBERS.get(bytes, start + Long.BYTES) & -1L >>> -8 * length;
        } else {
            first &= -1L >>> -8 * length;
        }
        if (first != lastFirst || second != lastSecond) {
            last = useless ? TextValue.ofPlain(bytes, start, end) : remembered(bytes, start, end, first, second);
            lastFirst = first;
            lastSecond = second;
        }
        return last;
    }

    private TextValue remembered(byte[] bytes, int start, int end, long first, long second) {
        if (++tries == TRIES) {
            useless = hits < tries / 2;
            tries = 0;
            hits = 0;
        }
        long mixed = (first + second * MIX) * MIX;
        int place = (int) (mixed >>> 32 ^ mixed >>> 53) & values.length - 1;
        if (!holds(place, first, second)) {
            place ^= 1;
        }
        if (holds(place, first, second)) {
            hits++;
            return Objects.requireNonNull(values[place]);
        }
        // Of the two places a text can have, the free one or, now and then, either.
        place ^= values[place ^ 1] == null || (tries & 1) == 0 ? 1 : 0;
        TextValue made = TextValue.ofPlain(bytes, start, end);
        keys[2 * place] = first;
        keys[2 * place + 1] = second;
        values[place] = made;
        return made;
    }

    /** No plain text has a zero in it, so those after its end tell its length as well. */
    private boolean holds(int place, long first, long second) {
        return keys[2 * place] == first && keys[2 * place + 1] == second;
    }
}
