package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.function.Tally;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RunningSum;
import dev.morphema.value.Value;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one group whose members are not kept. A problem with some member is told only if
 * the value it concerns is asked for. Not thread-safe.
 */
final class GroupState {
    private static final Nested[] NONE = {};
    private static final Function.Accumulator[] NOTHING = {};

    private final GroupUse use;
    private final CallNodes.Aggregate[] functions;
    /** What is tallied of the functions that can do with cells, until they cannot. */
    private final long[] cells;
    /**
     * What the other functions have come to; null for one that has no value, since an argument of
     * it has none.
     */
    private Function.@Nullable Accumulator[] accumulators = NOTHING;
    /**
     * For each function whether its accumulator is asked, bit by bit; and whether it wants no more
     * members.
     */
    private long inObjects;

    private long done;
    /**
     * The functions that are sums of what inner groups come to, bit by bit, as long as these have
     * all members.
     */
    private long summedUp;
    /** What a function came to in inner groups before it had to go on by itself. */
    private @Nullable NumberValue @Nullable [] before;

    private @Nullable ProblemException @Nullable [] failures;
    private @Nullable Value @Nullable [] results;
    private final Nested[] nested;
    /** Where the first member stood, for problems with the group. */
    private final @Nullable Origin origin;

    /** Begins without members. */
    GroupState(GroupUse use, Frame frame, @Nullable Origin origin) {
        this(use, origin, new long[use.cells()]);
        if (!use.areTallied()) {
            startObjects(frame);
        }
        if (nested.length > 0) {
            startNested(frame);
        }
    }

    private void startObjects(Frame frame) {
        for (int i = 0; i < functions.length; i++) {
            if (functions[i].tally() == null) {
                putInObject(i, functions[i].start(frame));
            }
        }
    }

    private void startNested(Frame frame) {
        for (int i = 0; i < nested.length; i++) {
            nested[i] = new Nested(use.nested().get(i), frame);
        }
        summedUp = use.summedUp();
    }

    /** Goes on from what was tallied in cells, by functions that all can do with them. */
    GroupState(GroupUse use, @Nullable Origin origin, long[] cells, int at) {
        this(use, origin, Arrays.copyOfRange(cells, at, at + use.cells()));
    }

    private GroupState(GroupUse use, @Nullable Origin origin, long[] cells) {
        this.use = use;
        this.origin = origin;
        this.functions = use.running();
        this.cells = cells;
        this.nested = use.nested().isEmpty() ? NONE : new Nested[use.nested().size()];
    }

    @Nullable
    Origin origin() {
        return origin;
    }

    /** Takes the next member, which is in the frame under the name of the members. */
    void add(Frame frame, Value member) {
        addFrom(0, frame, member);
    }

    /** As {@link #add}, for a member that the first functions have taken already. */
    void addFrom(int function, Frame frame, Value member) {
        for (int i = function; i < functions.length; i++) {
            if ((summedUp & 1L << i) == 0) {
                take(i, frame, member);
            }
        }
        if (nested.length > 0) {
            addToLoops(frame, member);
        }
    }

    private void addToLoops(Frame frame, Value member) {
        for (int loop = 0; loop < nested.length; loop++) {
            if (!nested[loop].add(frame, member)) {
                relyNoMoreOn(loop, frame, member);
            }
        }
    }

    /**
     * An inner loop takes no members from the one at hand on, so the functions that relied on it
     * take them themselves.
     */
    private void relyNoMoreOn(int loop, Frame frame, Value member) {
        for (int i = 0; i < functions.length; i++) {
            if ((summedUp & 1L << i) != 0 && use.partsOf(i).loop() == loop) {
                goOnAlone(i, frame, member);
            }
        }
    }

    private void take(int i, Frame frame, Value member) {
        if ((inObjects & 1L << i) != 0 || !use.tally(i, frame, member, cells, 0)) {
            takeInObject(i, frame, member);
        }
    }

    private void takeInObject(int i, Frame frame, Value member) {
        if ((inObjects & 1L << i) == 0) {
            putInObject(i, Objects.requireNonNull(functions[i].tally()).resumed(cells, use.place(i)));
        }
        Function.Accumulator accumulator = accumulators[i];
        if (accumulator != null && (done & 1L << i) == 0) {
            add(i, accumulator, frame, member);
        }
    }

    private void goOnAlone(int i, Frame frame, Value member) {
        try {
            if (before == null) {
                before = new NumberValue[functions.length];
            }
            before[i] = sumOfParts(i);
        } catch (ProblemException e) {
            fail(i, e);
        }
        summedUp &= ~(1L << i);
        take(i, frame, member);
    }

    /**
     * {@return what a function over all members comes to, from what it comes to in the inner
     * groups}
     */
    private NumberValue sumOfParts(int i) {
        GroupUse.Parts parts = use.partsOf(i);
        RunningSum sum = new RunningSum();
        try {
            nested[parts.loop()].held.eachState(state -> sum.plus((NumberValue) state.result(parts.function())));
        } catch (ProblemException e) {
            throw new ProblemException(e.problem().at(functions[i].span().location()), e);
        }
        return sum.total();
    }

    private void putInObject(int i, Function.@Nullable Accumulator accumulator) {
        if (accumulators.length == 0) {
            accumulators = new Function.Accumulator[functions.length];
        }
        accumulators[i] = accumulator;
        inObjects |= 1L << i;
    }

    private void add(int i, Function.Accumulator accumulator, Frame frame, Value member) {
        try {
            if (!functions[i].feed(frame, accumulator)) {
                done |= 1L << i;
            }
        } catch (ProblemException e) {
            fail(i, LoopPlan.placed(functions[i].located(e), member));
        }
    }

    private void fail(int i, ProblemException e) {
        done |= 1L << i;
        if (failures == null) {
            failures = new ProblemException[functions.length];
        }
        failures[i] = e;
    }

    /** {@return the value of a function over the members} */
    Value result(int index) {
        if (failures != null && failures[index] != null) {
            throw failures[index];
        }
        if ((summedUp & 1L << index) == 0 && (inObjects & 1L << index) == 0) {
            Tally tally = Objects.requireNonNull(functions[index].tally());
            return afterBefore(index, functions[index].result(tally, cells, use.place(index)));
        }
        // An accumulator is asked once: to reverse a list twice is not to reverse it.
        if (results == null) {
            results = new Value[functions.length];
        }
        Value result = results[index];
        if (result == null) {
            result = (summedUp & 1L << index) != 0
                    ? sumOfParts(index)
                    : afterBefore(index, functions[index].result(accumulators[index]));
            results[index] = result;
        }
        return result;
    }

    private Value afterBefore(int index, Value result) {
        NumberValue first = before == null ? null : before[index];
        return first == null ? result : first.plus((NumberValue) result);
    }

    /** Passes on what a loop has made of the members. */
    boolean emit(int index, Flow next) {
        return nested[index].emit(next);
    }

    /** A loop that groups the members once more, or holds the first of them in some order. */
    private static final class Nested implements Flow {
        private final LoopPlan loop;
        private final Flow first;
        private final HeldFlow held;
        private @Nullable Flow next;
        private boolean wantsMore = true;
        private boolean more = true;
        private @Nullable ProblemException failure;

        Nested(LoopPlan loop, Frame frame) {
            this.loop = loop;
            LoopPlan.Started started = loop.startHolding(frame, this);
            this.first = started.first();
            this.held = started.held();
        }

        /** Takes a member; says whether it could, or wanted none before. */
        boolean add(Frame frame, Value member) {
            if (wantsMore) {
                try {
                    frame.set(loop.slot(), member);
                    wantsMore = first.turn();
                } catch (ProblemException e) {
                    failure = LoopPlan.placed(e, member);
                    wantsMore = false;
                    return false;
                }
            }
            return true;
        }

        boolean emit(Flow to) {
            if (failure != null) {
                throw failure;
            }
            next = to;
            more = true;
            first.end();
            return more;
        }

        @Override
        public boolean turn() {
            more = Objects.requireNonNull(next).turn();
            return more;
        }

        @Override
        public RecordSink open() {
            return Objects.requireNonNull(next).open();
        }

        @Override
        public boolean close() {
            more = Objects.requireNonNull(next).close();
            return more;
        }

        @Override
        public void end() {
            Objects.requireNonNull(next).end();
        }
    }
}
