package dev.morphema.engine;

import dev.morphema.value.Value;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The values of the names of one target, let or call while it runs. Not thread-safe. */
final class Frame {
    private final RunState run;
    /** Values, and states of groups under the names of their members. */
    private final @Nullable Object[] slots;

    private final @Nullable Frame caller;
    private final List<Node> arguments;
    private final int depth;
    private final SlotSite.@Nullable Found[] sites;

    Frame(RunState run, int size) {
        this(run, size, null, List.of(), 0);
    }

    private Frame(RunState run, int size, @Nullable Frame caller, List<Node> arguments, int depth) {
        this.run = run;
        this.slots = new Object[size];
        this.caller = caller;
        this.arguments = arguments;
        this.depth = depth;
        this.sites = run.sites();
    }

    /** {@return the frame of a define that is called from here} */
    Frame call(int size, List<Node> callArguments) {
        return new Frame(run, size, this, callArguments, depth + 1);
    }

    RunState run() {
        return run;
    }

    /** {@return what the places of the mapping found in the last layouts, by their numbers} */
    SlotSite.@Nullable Found[] sites() {
        return sites;
    }

    /** {@return how many defines have called one another to come here} */
    int depth() {
        return depth;
    }

    @Nullable
    Value get(int slot) {
        return (Value) slots[slot];
    }

    /** {@return what is in a slot: a value, the state of a group, or null} */
    @Nullable
    Object held(int slot) {
        return slots[slot];
    }

    void set(int slot, @Nullable Object valueOrState) {
        slots[slot] = valueOrState;
    }

    void clear(int[] emptied) {
        for (int slot : emptied) {
            slots[slot] = null;
        }
    }

    /** {@return an argument, calculated in the caller's frame when it is first asked for} */
    Value argument(int slot) {
        Value value = (Value) slots[slot];
        if (value == null) {
            value = arguments.get(slot).eval(Objects.requireNonNull(caller));
            slots[slot] = value;
        }
        return value;
    }
}
