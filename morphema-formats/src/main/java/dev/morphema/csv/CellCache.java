package dev.morphema.csv;

import dev.morphema.value.EightBytes;
import dev.morphema.value.TextValue;
import java.nio.charset.CharacterCodingException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Remembers the short texts of one column, many of which hold few different ones: codes, days,
 * names of ships. A text that comes again is the same object, which costs nothing to make and
 * little to look up: its bytes and their number are taken as two numbers. Gives up on a column of
 * ever new texts. Not thread-safe.
 */
final class CellCache {
    private static final int LONGEST = 2 * Long.BYTES - 1;
    private static final int PLACE_OF_LENGTH = Long.SIZE - Byte.SIZE;
    private static final int TRIES = 1 << 10;
    private static final long MIX = 0x9E3779B97F4A7C15L;

    private final CellTexts texts;
    /**
     * For each place the first eight bytes of its text; then the others and, in the highest, how
     * many there are.
     */
    private final long[] keys;

    private final @Nullable TextValue[] values;
    private int tries;
    private int hits;
    private boolean useless;

    /** The last text: in files in some order the next is often the same. */
    private long lastFirst;

    private long lastSecond;
    private TextValue last = TextValue.EMPTY;

    /**
     * @param texts makes the texts
     * @param size for how many texts there is room, a power of two from 2 on
     */
    CellCache(CellTexts texts, int size) {
        this.texts = texts;
        keys = new long[size * 2];
        values = new TextValue[size];
    }

    /**
     * {@return the text of some bytes}
     *
     * @param bytes with at least fifteen more behind the first of the text; at least one is of the
     *     text
     * @throws CharacterCodingException if they are no characters
     */
    TextValue text(byte[] bytes, int start, int end) throws CharacterCodingException {
        int length = end - start;
        if (length > LONGEST) {
            return texts.text(bytes, start, end);
        }
        long first = EightBytes.first(EightBytes.at(bytes, start), Math.min(length, Long.BYTES));
        long second = (long) length << PLACE_OF_LENGTH;
        if (length > Long.BYTES) {
            second |= EightBytes.first(EightBytes.at(bytes, start + Long.BYTES), length - Long.BYTES);
        }
        if (first != lastFirst || second != lastSecond) {
            last = useless ? texts.text(bytes, start, end) : remembered(bytes, start, end, first, second);
            lastFirst = first;
            lastSecond = second;
        }
        return last;
    }

    private TextValue remembered(byte[] bytes, int start, int end, long first, long second)
            throws CharacterCodingException {
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
        TextValue made = texts.text(bytes, start, end);
        keys[2 * place] = first;
        keys[2 * place + 1] = second;
        values[place] = made;
        return made;
    }

    private boolean holds(int place, long first, long second) {
        return keys[2 * place] == first && keys[2 * place + 1] == second;
    }
}
