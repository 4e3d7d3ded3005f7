package dev.morphema.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * How the members of one group clause are used. Where every use is a function over them, or a loop that groups them once
 * more, what these need is kept up to date with each member, and the members are not kept. Filled while a mapping is
 * compiled, only read afterwards.
 */
final class GroupUse {
    private final int slot;
    private final List<CallNodes.Aggregate> running = new ArrayList<>();
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
        running.add(aggregate);
        return running.size() - 1;
    }

    /** {@return the place in the state of each group that the next loop over the members gets} */
    int nextNested() {
        return nested.size();
    }

    void add(LoopPlan loop) {
        nested.add(loop);
    }

    List<CallNodes.Aggregate> running() {
        return running;
    }

    List<LoopPlan> nested() {
        return nested;
    }

    /** {@return what is held of each group, as the printed plan shows it} */
    String describe() {
        if (kept) {
            return "holding the members";
        }
        List<String> parts = new ArrayList<>();
        if (!running.isEmpty()) {
            parts.add("keeping up "
                    + running.stream().map(Node::written).distinct().collect(Collectors.joining(", ")));
        }
        for (LoopPlan loop : nested) {
            parts.add("in each group: " + loop.describeGrouping());
        }
        return parts.isEmpty() ? "holding the keys" : String.join("; ", parts);
    }
}
