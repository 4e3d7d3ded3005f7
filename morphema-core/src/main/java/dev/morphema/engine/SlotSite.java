package dev.morphema.engine;

import dev.morphema.value.Layout;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A place of a mapping that looks for fields in records. As records mostly come with the same
 * layout, what it found in the last one is remembered: by the run, since the place itself is shared
 * by all runs. Immutable.
 */
final class SlotSite {
    /** Gives each site of one program its number. Not thread-safe. */
    static final class Numbering {
        private int count;

        /**
         * @param find gives the slots that the site wants of a layout, in the order in which it
         * wants them
         */
        SlotSite site(Function<Layout, int[]> find) {
            return new SlotSite(count++, find);
        }

        int count() {
            return count;
        }
    }

    /**
     * What a site found.
     *
     * @param slots not to be changed
     * @param only the slot if there is just one, else -1
     */
    record Found(Layout layout, int[] slots, int only) {}

    private final int number;
    private final Function<Layout, int[]> find;

    private SlotSite(int number, Function<Layout, int[]> find) {
        this.number = number;
        this.find = find;
    }

    int number() {
        return number;
    }

    /** {@return what the site finds in a layout} */
    Found in(Frame frame, Layout layout) {
        @Nullable Found[] known = frame.sites();
        Found found = known[number];
        if (found == null || found.layout() != layout) {
            found = find(layout);
            known[number] = found;
        }
        return found;
    }

    private Found find(Layout layout) {
        int[] slots = Objects.requireNonNull(find.apply(layout));
        return new Found(layout, slots, slots.length == 1 ? slots[0] : -1);
    }
}
