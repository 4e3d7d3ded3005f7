package dev.morphema.csv;

import dev.morphema.value.PlainText;
import dev.morphema.value.TextValue;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Remembers the texts of one column, many of which hold few different ones: codes, days, names of ships. A text that comes
 * again is the same object, which costs nothing to make and little to look up. Gives up on a column of ever new texts. Not
 * thread-safe.
 */
final class CellCache {
    private static final int SIZE = 1 << 11;
    private static final int LONGEST = 40;
    private static final int TRIES = 1 << 10;

    private final byte[] @Nullable [] keys = new byte[SIZE][];
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
        if (useless || end - start > LONGEST) {
            return made(bytes, start, end, plain);
        }
        if (++tries == TRIES) {
            useless = hits < tries / 2;
            tries = 0;
            hits = 0;
        }
        int hash = 0;
        for (int i = start; i < end; i++) {
            hash = hash * 31 + bytes[i];
        }
        int place = (hash ^ hash >>> 11 ^ hash >>> 22) & SIZE - 1;
        TextValue known = known(place, bytes, start, end);
        if (known == null) {
            known = known(place ^ 1, bytes, start, end);
        }
        if (known != null) {
            hits++;
            return known;
        }
        int free = keys[place] == null ? place : place ^ (tries & 1);
        TextValue made = made(bytes, start, end, plain);
        keys[free] = Arrays.copyOfRange(bytes, start, end);
        values[free] = made;
        return made;
    }

    private @Nullable TextValue known(int place, byte[] bytes, int start, int end) {
        byte[] key = keys[place];
        return key != null && Arrays.equals(key, 0, key.length, bytes, start, end) ? values[place] : null;
    }

    private static TextValue made(byte[] bytes, int start, int end, boolean plain) {
        if (plain) {
            return PlainText.of(bytes, start, end);
        }
        // All characters are ASCII, so this encoding, the fastest to read, is as good as any.
        return TextValue.of(new String(bytes, start, end - start, StandardCharsets.ISO_8859_1));
    }
}
