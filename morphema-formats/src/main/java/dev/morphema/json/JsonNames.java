package dev.morphema.json;

import dev.morphema.value.Hashing;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The names of one input, each the same object when it comes again. Objects mostly have the same
 * fields in the same order, so the name that followed last time is tried first. Not thread-safe.
 */
final class JsonNames {
    /** Names that are data could be without number. */
    private static final int MOST = 1 << 10;

    private static final int PLACES = 1 << 7;

    /** A name, and the one that came next the last time. */
    static final class Known {
        private final byte[] bytes;
        private final String name;
        private @Nullable Known following;
        private final @Nullable Known nextOfPlace;

        Known(byte[] bytes, int kinds, @Nullable Known nextOfPlace) {
            this.bytes = bytes;
            this.name = JsonText.of(bytes, 0, bytes.length, kinds);
            this.nextOfPlace = nextOfPlace;
        }

        boolean is(byte[] other, int from, int to) {
            return Arrays.equals(bytes, 0, bytes.length, other, from, to);
        }
    }

    private final @Nullable Known[] places = new Known[PLACES];
    private int size;
    private @Nullable Known last;

    /**
     * {@return the name that some bytes are}
     *
     * @param kinds what there is in it, without escapes
     * @throws JsonWindow.BadJson if there are bytes that are no characters
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
        int place = Hashing.of(bytes, from, to) & PLACES - 1;
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
