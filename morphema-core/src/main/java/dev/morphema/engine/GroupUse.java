package dev.morphema.engine;

import dev.morphema.function.Tally;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/**
 * How the members of one group clause are used. Where every use is a function over them, or a loop that groups them once
 * more, what these need is kept up to date with each member, and the members are not kept. Filled while a mapping is
 * compiled, only read afterwards.
 */
final class GroupUse {
    /** So many functions are kept up at most; with more the members are kept. */
    private static final int MOST_RUNNING = 64;

    private final int slot;
    private CallNodes.Aggregate[] running = {};
    /** For each function that can do with cells the first of them. */
    private int[] places = {};

    private int cells;
    private boolean tallied = true;
    private final List<LoopPlan> nested = new ArrayList<>();
    private boolean kept;

    /** @param slot of the name of the members */
    GroupUse(int slot) {
        this.slot = slot;
    }

    int slot() {
        return slot;
    }

    /** The members are used in some other way. */
    void keep() {
        kept = true;
    }

    /** {@return whether the members themselves are kept} */
    boolean keeps() {
        return kept;
    }

    /** {@return the place of a function over the members in the state of each group} */
    int add(CallNodes.Aggregate aggregate) {
        kept |= running.length == MOST_RUNNING;
        running = Arrays.copyOf(running, running.length + 1);
        running[running.length - 1] = aggregate;
        places = Arrays.copyOf(places, running.length);
        places[running.length - 1] = cells;
        Tally tally = aggregate.tally();
        tallied &= tally != null;
        cells += tally == null ? 0 : tally.size();
        return running.length - 1;
    }

    /** {@return the place in the state of each group that the next loop over the members gets} */
    int nextNested() {
        return nested.size();
    }

    void add(LoopPlan loop) {
        nested.add(loop);
    }

    /** {@return whether all that is needed of the members is tallied in cells} */
    boolean isTallied() {
        return tallied && !kept && nested.isEmpty();
    }

    /** {@return how many cells the functions need that can do with cells} */
    int cells() {
        return cells;
    }

    /** {@return the first cell of a function} */
    int place(int function) {
        return places[function];
    }

    /** {@return the functions over the members, not to be changed} */
    CallNodes.Aggregate[] running() {
        return running;
    }

    List<LoopPlan> nested() {
        return nested;
    }

    /** {@return what is held of each group, as the printed plan shows it: a line, and one for each loop over the members} */
    String describe() {
        if (kept) {
            return "holding the members";
        }
        StringBuilder lines = new StringBuilder();
        lines.append(
                running.length == 0
                        ? "holding the keys"
                        : "keeping up "
                                + Arrays.stream(running)
                                        .map(Node::written)
                                        .distinct()
                                        .collect(Collectors.joining(", ")));
        for (LoopPlan loop : nested) {
            lines.append("\n  in each: ").append(loop.describeGrouping().replace("\n", "\n  "));
        }
        return lines.toString();
    }
}
