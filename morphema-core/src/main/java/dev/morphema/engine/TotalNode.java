package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.plan.Scan;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A function over the records of a source that gives the same all through a run. Where the source
 * streams, its records are read once more for all such functions, and none is kept.
 */
final class TotalNode extends Node {
    private final CallNodes.Aggregate aggregate;
    private final Scan scan;
    /** How many steps lead from a record down to what the function takes. */
    private final int steps;

    TotalNode(CallNodes.Aggregate aggregate, Scan scan, int steps) {
        super(aggregate.span());
        this.aggregate = aggregate;
        this.scan = scan;
        this.steps = steps;
    }

    @Override
    Value compute(Frame frame) {
        Result result = frame.run().memory().total(this, scan);
        return result == null ? aggregate.eval(frame) : result.value();
    }

    /** {@return what takes the records and comes to the result, in a frame of its own} */
    Result start(Frame frame) {
        return new Result(frame);
    }

    /** What the function has come to. */
    final class Result {
        private Function.@Nullable Accumulator accumulator;
        private @Nullable RecordSink sink;
        private @Nullable ProblemException failure;
        /** Whether more records can change the result. */
        private boolean open;

        private Result(Frame frame) {
            guarded(() -> {
                accumulator = aggregate.start(frame);
                sink = accumulator == null ? null : items(aggregate.items(), steps, frame, this::add);
                open = sink != null;
            });
        }

        private boolean add(Value item) {
            return item.isMissing() || Objects.requireNonNull(accumulator).add(item);
        }

        /** Takes a record. */
        void take(Value record) {
            if (open) {
                guarded(() -> open = Objects.requireNonNull(sink).accept(record));
            }
        }

        /** {@return whether more records can change the result} */
        boolean wantsMore() {
            return open;
        }

        /** There are no more records, or no more are wanted. */
        void end() {
            if (sink != null && failure == null) {
                guarded(sink::end);
            }
        }

        /** A problem is told when the result is asked for, which perhaps nobody does. */
        private void guarded(Runnable doing) {
            try {
                doing.run();
            } catch (ProblemException e) {
                failure = e;
                open = false;
            }
        }

        private Value value() {
            if (failure != null) {
                throw failure;
            }
            return aggregate.result(accumulator);
        }
    }

    /**
     * {@return what takes records and gives items, that many steps down from the sequence that
     * streams}
     */
    private static RecordSink items(Node items, int steps, Frame frame, ItemSink taker) {
        if (steps > 0) {
            PathNodes.Step step = (PathNodes.Step) items;
            return items(step.base(), steps - 1, frame, value -> step.each(frame, value, taker));
        }
        return items.stream(frame, new RecordSink() {
            @Override
            public boolean accept(Value record) {
                return taker.accept(record);
            }

            @Override
            public void end() {
                // whoever gives the records knows
            }
        });
    }
}
