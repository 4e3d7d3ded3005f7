package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Origin;
import dev.morphema.value.Value;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one group whose members are not kept. A problem with some member is told only if the value it concerns
 * is asked for. Not thread-safe.
 */
final class GroupState {
    private static final Nested[] NONE = {};

    private final CallNodes.Aggregate[] functions;
    /** For each function what it has come to; null if it has no value, or an argument of it has none. */
    private final Function.@Nullable Accumulator[] accumulators;
    /** For each function whether it wants no more members. */
    private long done;

    private @Nullable ProblemException @Nullable [] failures;
    private @Nullable Value @Nullable [] results;
    private final Nested[] nested;
    /** Where the first member stood, for problems with the group. */
    private final @Nullable Origin origin;

    GroupState(GroupUse use, Frame frame, Value first) {
        this.origin = LoopPlan.origin(first);
        this.functions = use.running();
        this.accumulators = new Function.Accumulator[functions.length];
        for (int i = 0; i < functions.length; i++) {
            accumulators[i] = functions[i].start(frame);
        }
        this.nested = use.nested().isEmpty() ? NONE : new Nested[use.nested().size()];
        for (int i = 0; i < nested.length; i++) {
            nested[i] = new Nested(use.nested().get(i), frame);
        }
    }

    @Nullable
    Origin origin() {
        return origin;
    }

    /** Takes the next member, which is in the frame under the name of the members. */
    void add(Frame frame, Value member) {
        for (int i = 0; i < functions.length; i++) {
            Function.Accumulator accumulator = accumulators[i];
            if (accumulator != null && (done & 1L << i) == 0) {
                add(i, accumulator, frame, member);
            }
        }
        for (Nested one : nested) {
            one.add(frame, member);
        }
    }

    private void add(int i, Function.Accumulator accumulator, Frame frame, Value member) {
        try {
            if (!functions[i].feed(frame, accumulator)) {
                done |= 1L << i;
            }
        } catch (ProblemException e) {
            done |= 1L << i;
            if (failures == null) {
                failures = new ProblemException[functions.length];
            }
            failures[i] = LoopPlan.placed(functions[i].located(e), member);
        }
    }

    /** {@return the value of a function over the members} */
    Value result(int index) {
        if (failures != null && failures[index] != null) {
            throw failures[index];
        }
        // An accumulator is asked once: to reverse a list twice is not to reverse it.
        if (results == null) {
            results = new Value[functions.length];
        }
        Value result = results[index];
        if (result == null) {
            result = functions[index].result(accumulators[index]);
            results[index] = result;
        }
        return result;
    }

    /** Passes on the groups that a loop has made of the members. */
    boolean emit(int index, Flow next) {
        return nested[index].emit(next);
    }

    /** A loop that groups the members once more. */
    private static final class Nested implements Flow {
        private final LoopPlan loop;
        private final Flow grouping;
        private @Nullable Flow next;
        private boolean wantsMore = true;
        private boolean more = true;
        private @Nullable ProblemException failure;

        Nested(LoopPlan loop, Frame frame) {
            this.loop = loop;
            this.grouping = loop.startGrouping(frame, this);
        }

        void add(Frame frame, Value member) {
            if (wantsMore) {
                try {
                    frame.set(loop.slot(), member);
                    wantsMore = grouping.turn();
                } catch (ProblemException e) {
                    failure = LoopPlan.placed(e, member);
                    wantsMore = false;
                }
            }
        }

        boolean emit(Flow to) {
            if (failure != null) {
                throw failure;
            }
            next = to;
            more = true;
            grouping.end();
            return more;
        }

        @Override
        public boolean turn() {
            more = Objects.requireNonNull(next).turn();
            return more;
        }

        @Override
        public void end() {
            Objects.requireNonNull(next).end();
        }
    }
}
