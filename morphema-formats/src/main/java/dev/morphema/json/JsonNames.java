package dev.morphema.json;

import dev.morphema.value.EightBytes;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The names of one input, each the same object when it comes again. Objects mostly have the same fields in the same order, so
 * the name that followed last time is tried first. Not thread-safe.
 */
final class JsonNames {
    /** Names that are data could be without number. */
    private static final int MOST = 1 << 10;

    private static final int PLACES = 1 << 7;

    /** As often what stands before a name may change: then it is looked for no more. */
    private static final int MOST_WAYS = 1 << 6;

    /** A name, the one that came next the last time, and the way to it from the value before. */
    static final class Known {
        private final byte[] bytes;
        private final String name;
        private @Nullable Known following;
        private final @Nullable Known nextOfPlace;
        private @Nullable Way way;
        private int ways;

        Known(byte[] bytes, int kinds, @Nullable Known nextOfPlace) {
            this.bytes = bytes;
            this.name = JsonText.of(bytes, 0, bytes.length, kinds);
            this.nextOfPlace = nextOfPlace;
        }

        boolean is(byte[] other, int from, int to) {
            return Arrays.equals(bytes, 0, bytes.length, other, from, to);
        }

        String name() {
            return name;
        }

        @Nullable
        Way way() {
            return way;
        }
    }

    /**
     * All that stands between a value, or the beginning of an object, and the value of the field at hand: where that comes
     * again, it need not be taken apart again.
     *
     * @param bytes and zeros up to a multiple of eight
     * @param length how many bytes there are
     * @param afterValue whether a value of the same object comes before it
     * @param name where the name begins
     * @param lines how many lines end in it
     * @param lineStart where the last line begins, if lines end in it
     */
    record Way(byte[] bytes, int length, boolean afterValue, int name, int lines, int lineStart) {
        /** {@return whether it stands at a place, and is surely all that does} */
        boolean isAt(byte[] buffer, int at, int limit) {
            int last = bytes.length - Long.BYTES;
            if (at + bytes.length > limit) {
                return false;
            }
            for (int i = 0; i < last; i += Long.BYTES) {
                if (EightBytes.at(bytes, i) != EightBytes.at(buffer, at + i)) {
                    return false;
                }
            }
            return EightBytes.at(bytes, last) == EightBytes.first(EightBytes.at(buffer, at + last), length - last);
        }
    }

    private final @Nullable Known[] places = new Known[PLACES];
    private int size;
    private @Nullable Known last;

    /** {@return the name that followed the last one before, if there was one} */
    @Nullable
    Known expected() {
        return last == null ? null : last.following;
    }

    /** The name at hand is the one that was expected. */
    void goOn(Known expected) {
        last = expected;
    }

    /**
     * Remembers the way to the last name.
     *
     * @param bytes where it stands, from a place to before another
     */
    void learn(byte[] bytes, int from, int to, boolean afterValue, int name, int lines, int lineStart) {
        if (last != null && last.ways < MOST_WAYS) {
            last.ways++;
            int length = to - from;
            byte[] copy = new byte[length + Long.BYTES - 1 & -Long.BYTES];
            System.arraycopy(bytes, from, copy, 0, length);
            last.way = new Way(copy, length, afterValue, name, lines, lineStart);
        }
    }

    /**
     * {@return the name that some bytes are}
     *
     * @param kinds what there is in it, without escapes
     * @throws ByteTokens.BadJson if there are bytes that are no characters
     */
    String of(byte[] bytes, int from, int to, int kinds) {
        Known expected = last == null ? null : last.following;
        if (expected != null && expected.is(bytes, from, to)) {
            last = expected;
            return expected.name;
        }
        Known found = find(bytes, from, to, kinds);
        if (found == null) {
            last = null;
            return JsonText.of(bytes, from, to, kinds);
        }
        if (last != null) {
            last.following = found;
        }
        last = found;
        return found.name;
    }

    private @Nullable Known find(byte[] bytes, int from, int to, int kinds) {
        int hash = 0;
        for (int i = from; i < to; i++) {
            hash = hash * 31 + bytes[i];
        }
        int place = (hash ^ hash >>> 15) & PLACES - 1;
        for (Known known = places[place]; known != null; known = known.nextOfPlace) {
            if (known.is(bytes, from, to)) {
                return known;
            }
        }
        if (size == MOST) {
            return null;
        }
        places[place] = new Known(Arrays.copyOfRange(bytes, from, to), kinds, places[place]);
        size++;
        return places[place];
    }
}
