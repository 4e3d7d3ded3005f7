package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one group whose members are not kept. A problem with some member is told only if the value it concerns
 * is asked for. Not thread-safe.
 */
final class GroupState {
    private final Running[] running;
    private final Nested[] nested;
    /** The first member, for the place of problems with the group. */
    private final Value first;

    GroupState(GroupUse use, Frame frame, Value first) {
        this.first = first;
        List<CallNodes.Aggregate> aggregates = use.running();
        running = new Running[aggregates.size()];
        for (int i = 0; i < running.length; i++) {
            running[i] = new Running(aggregates.get(i), frame);
        }
        List<LoopPlan> loops = use.nested();
        nested = new Nested[loops.size()];
        for (int i = 0; i < nested.length; i++) {
            nested[i] = new Nested(loops.get(i), frame);
        }
    }

    Value first() {
        return first;
    }

    /** Takes the next member, which is in the frame under the name of the members. */
    void add(Frame frame, Value member) {
        for (Running one : running) {
            one.add(frame, member);
        }
        for (Nested one : nested) {
            one.add(frame, member);
        }
    }

    /** {@return the value of a function over the members} */
    Value result(int index) {
        return running[index].result();
    }

    /** Passes on the groups that a loop has made of the members. */
    boolean emit(int index, Flow next) {
        return nested[index].emit(next);
    }

    /** A function over the members. */
    private static final class Running {
        private final CallNodes.Aggregate aggregate;
        private final Function.@Nullable Accumulator accumulator;
        private boolean wantsMore = true;
        private @Nullable ProblemException failure;

        Running(CallNodes.Aggregate aggregate, Frame frame) {
            this.aggregate = aggregate;
            this.accumulator = aggregate.start(frame);
        }

        void add(Frame frame, Value member) {
            if (wantsMore && accumulator != null) {
                try {
                    wantsMore = aggregate.feed(frame, accumulator);
                } catch (ProblemException e) {
                    failure = LoopPlan.placed(aggregate.located(e), member);
                    wantsMore = false;
                }
            }
        }

        Value result() {
            if (failure != null) {
                throw failure;
            }
            return aggregate.result(accumulator);
        }
    }

    /** A loop that groups the members once more. */
    private static final class Nested implements Flow {
        private final LoopPlan loop;
        private final Flow grouping;
        private @Nullable Flow next;
        private boolean wantsMore = true;
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

        private boolean more = true;

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
