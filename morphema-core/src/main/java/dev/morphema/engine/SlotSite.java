package dev.morphema.engine;

import dev.morphema.value.Layout;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A place of a mapping that looks for fields in records. As records mostly come with the same layout, what it found in the last
 * one is remembered: by the run, since the place itself is shared by all runs. Immutable.
 */
final class SlotSite {
    /** Gives each site of one program its number. Not thread-safe. */
    static final class Numbering {
        private int count;

        /** @param find gives the slots that the site wants of a layout, in the order in which it wants them */
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
     */
    record Found(Layout layout, int[] slots) {
        /** {@return the only slot, or -1 if there is none, or more than one} */
        int only() {
            return slots.length == 1 ? slots[0] : -1;
        }
    }

    private final int number;
    private final Function<Layout, int[]> find;

    private SlotSite(int number, Function<Layout, int[]> find) {
        this.number = number;
        this.find = find;
    }

    /** {@return what the site finds in a layout} */
    Found in(Frame frame, Layout layout) {
        @Nullable Found[] known = frame.sites();
        Found found = known[number];
        if (found == null || found.layout() != layout) {
            found = new Found(layout, Objects.requireNonNull(find.apply(layout)));
            known[number] = found;
        }
        return found;
    }
}
