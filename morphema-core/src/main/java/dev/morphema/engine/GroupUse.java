package dev.morphema.engine;

import dev.morphema.function.Tally;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * How the members of one group clause are used. Where every use is a function over them, or a loop
 * that groups them once more or takes the first in some order, what these need is kept up to date
 * with each member, and the members are not kept. Filled while a mapping is compiled, only read
 * afterwards.
 */
final class GroupUse {
    private final int slot;
    private CallNodes.Aggregate[] running = {};
    /** For each function that can do with cells the first of them. */
    private int[] places = {};
    /**
     * For each function the step from a member to the item that it takes, if that is all there is
     * to do; else null.
     */
    private PathNodes.@Nullable Named[] steps = {};

    private int cells;
    private boolean tallied = true;
    private final List<LoopPlan> nested = new ArrayList<>();
    private final boolean kept;
    /** The loop that the members go through one at a time; null if there is none. */
    private @Nullable LoopPlan over;
    /** Known when all uses are. */
    private @Nullable Sums sums;

    /**
     * A function over the members is the sum of what another comes to, over the groups that a loop
     * makes of them.
     */
    record Parts(int loop, int function) {}

    /**
     * The functions that are such sums.
     *
     * @param parts for each function, or null if it must be kept up by itself
     * @param functions those that are, bit by bit
     */
    private record Sums(@Nullable Parts[] parts, long functions) {}

    /**
     * @param slot of the name of the members
     * @param kept whether the members are kept
     */
    GroupUse(int slot, boolean kept) {
        this.slot = slot;
        this.kept = kept;
    }

    int slot() {
        return slot;
    }

    /** The members go through a loop, one at a time, and are not used as values beside. */
    void passTo(LoopPlan loop) {
        over = loop;
    }

    /** {@return whether the members are passed on one at a time} */
    boolean passes() {
        return over != null;
    }

    /** {@return whether the members themselves are kept} */
    boolean keeps() {
        return kept;
    }

    /** {@return the place of a function over the members in the state of each group} */
    int add(CallNodes.Aggregate aggregate) {
        running = Arrays.copyOf(running, running.length + 1);
        running[running.length - 1] = aggregate;
        places = Arrays.copyOf(places, running.length);
        places[running.length - 1] = cells;
        steps = Arrays.copyOf(steps, running.length);
        steps[running.length - 1] = PathNodes.Named.from(slot, aggregate.items());
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

    /** {@return whether all functions can do with cells} */
    boolean areTallied() {
        return tallied;
    }

    /** {@return how many cells the functions need that can do with cells} */
    int cells() {
        return cells;
    }

    /** {@return the first cell of a function} */
    int place(int function) {
        return places[function];
    }

    /**
     * Tallies what a function takes of a member, which is in the frame; says whether that could be
     * done. If not, the cells are as before: there is more than one item, or the cells cannot hold
     * what it comes to, or the item has a problem.
     *
     * @param at the first of all cells
     */
    boolean tally(int function, Frame frame, Value member, long[] cells, int at) {
        Tally tally = Objects.requireNonNull(running[function].tally());
        try {
            Value item = item(function, frame, member, tally);
            return item.isMissing() || isOne(item) && tally.add(cells, at + places[function], item);
        } catch (ProblemException e) {
            return false;
        }
    }

    private static boolean isOne(Value item) {
        return !(item instanceof Many || item instanceof ListValue);
    }

    private Value item(int function, Frame frame, Value member, Tally tally) {
        PathNodes.Named step = steps[function];
        return step != null && member instanceof RecordValue record
                ? item(frame, step, tally, record)
                : running[function].items().eval(frame);
    }

    /**
     * {@return whether all that is needed of the members is found in single fields of them, by
     * functions that can do with cells}
     */
    boolean takesBytes() {
        for (int i = 0; i < running.length; i++) {
            Tally tally = running[i].tally();
            boolean counts = tally != null && tally.counts() && PathNodes.isLocal(slot, running[i].items());
            if (tally == null || steps[i] == null && !counts) {
                return false;
            }
        }
        return !kept && over == null && nested.stream().allMatch(LoopPlan::groupsBytes);
    }

    /** {@return what a step leads to}, made without the record keeping it if that can be. */
    private static Value item(Frame frame, PathNodes.Named step, Tally tally, RecordValue member) {
        int field = step.only(frame, member.layout());
        if (field >= 0 && member.isPlain(field)) {
            Converter type = member.layout().converter(field);
            FieldBytes bytes = Objects.requireNonNull(member.fieldBytes());
            Value item =
                    type == null ? RecordValue.EMPTY : type.read(bytes.array(), bytes.from(field), bytes.to(field));
            if (item instanceof NumberValue || item != null && tally.counts()) {
                return item;
            }
        }
        return step.evalIn(frame, member);
    }

    /** {@return the functions that are sums of what others come to, bit by bit} */
    long summedUp() {
        return Objects.requireNonNull(sums).functions;
    }

    /** {@return of what such a function is the sum} */
    Parts partsOf(int function) {
        return Objects.requireNonNull(Objects.requireNonNull(sums).parts[function]);
    }

    /**
     * All uses of the members are known, and those of the groups that loops over the members make.
     */
    void complete() {
        @Nullable Parts[] parts = new Parts[running.length];
        long functions = 0;
        for (int i = 0; i < parts.length && !kept; i++) {
            parts[i] = parts(running[i]);
            functions |= parts[i] == null ? 0 : 1L << i;
        }
        sums = new Sums(parts, functions);
    }

    private @Nullable Parts parts(CallNodes.Aggregate whole) {
        for (int loop = 0; loop < nested.size(); loop++) {
            GroupUse inner = nested.get(loop).useOfSameMembers();
            for (int i = 0; inner != null && !inner.kept && i < inner.running.length; i++) {
                if (whole.addsUp(slot, inner.running[i], inner.slot)) {
                    return new Parts(loop, i);
                }
            }
        }
        return null;
    }

    /** {@return the functions over the members, not to be changed} */
    CallNodes.Aggregate[] running() {
        return running;
    }

    /** {@return how many members of a group may be held, though not all are kept} */
    int mostHeld() {
        return nested.stream().mapToInt(LoopPlan::mostHeld).sum();
    }

    List<LoopPlan> nested() {
        return nested;
    }
}
