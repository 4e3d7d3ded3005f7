package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Comparison;
import dev.morphema.value.ListValue;
import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Functions over many values. Absent and null are skipped before they come here. */
final class Aggregates implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.aggregate("first(items: many): any", true, false, others -> new Nth(1));
        functions.aggregate("last(items: many): any", true, false, others -> new Last());
        functions.aggregate("nth(items: many, position: integer): any", true, false, Aggregates::nth);
        functions.aggregate("join(items: many, mark?: text): text", false, true, Join::new);
        functions.aggregate("distinct(items: many): list", true, true, others -> new Distinct());
        functions.aggregate("sorted(items: many): list", true, true, others -> new Collected(Aggregates::sorted));
        functions.aggregate("reversed(items: many): list", true, false, others -> new Collected(Aggregates::reversed));
        functions.presence("exists(items: many): boolean", others -> new Exists());
        functions.aggregate("any(items: many): boolean", false, true, others -> new Truth(true));
        functions.aggregate("all(items: many): boolean", false, true, others -> new Truth(false));
    }

    private static Function.Accumulator nth(Value[] others) {
        NumberValue position = (NumberValue) others[0];
        if (position.sign() <= 0) {
            throw new ProblemException(
                    Problem.error(Code.OUT_OF_RANGE, "Positions count from 1.").withValue(position.toString()));
        }
        return new Nth(position.nearestLong());
    }

    private static void reversed(List<Value> items) {
        Collections.reverse(items);
    }

    private static void sorted(List<Value> items) {
        items.sort(Comparison::compareAlike);
    }

    private static final class Nth implements Function.Accumulator {
        private long missing;
        private Value found = Nothing.ABSENT;

        Nth(long position) {
            this.missing = position;
        }

        @Override
        public boolean add(Value value) {
            if (--missing == 0) {
                found = value;
            }
            return missing > 0;
        }

        @Override
        public Value result() {
            return found;
        }
    }

    private static final class Last implements Function.Accumulator {
        private Value last = Nothing.ABSENT;

        @Override
        public boolean add(Value value) {
            last = value;
            return true;
        }

        @Override
        public Value result() {
            return last;
        }
    }

    private static final class Join implements Function.Accumulator {
        private final String mark;
        private @Nullable StringBuilder joined;

        Join(Value[] others) {
            this.mark = others.length > 0 && others[0] instanceof TextValue text ? text.text() : "";
        }

        @Override
        public boolean add(Value value) {
            String text = Want.TEXT.take(value).toString();
            if (joined == null) {
                joined = new StringBuilder(text);
            } else {
                joined.append(mark).append(text);
            }
            return true;
        }

        @Override
        public Value result() {
            return joined == null ? Nothing.ABSENT : TextValue.of(joined.toString());
        }
    }

    private static final class Distinct implements Function.Accumulator {
        private final Map<Object, Value> items = new LinkedHashMap<>();

        @Override
        public boolean add(Value value) {
            items.putIfAbsent(Comparison.key(value), value);
            return true;
        }

        @Override
        public Value result() {
            return ListValue.of(List.copyOf(items.values()));
        }
    }

    private static final class Collected implements Function.Accumulator {
        private final Consumer<List<Value>> finish;
        private final List<Value> items = new ArrayList<>();

        Collected(Consumer<List<Value>> finish) {
            this.finish = finish;
        }

        @Override
        public boolean add(Value value) {
            items.add(value);
            return true;
        }

        @Override
        public Value result() {
            finish.accept(items);
            return ListValue.owned(items);
        }
    }

    private static final class Exists implements Function.Accumulator {
        private boolean found;

        @Override
        public boolean add(Value value) {
            found = true;
            return false;
        }

        @Override
        public Value result() {
            return BooleanValue.of(found);
        }
    }

    /** Whether any is true, or all are. */
    private static final class Truth implements Function.Accumulator {
        private final boolean decides;
        private boolean decided;

        Truth(boolean decides) {
            this.decides = decides;
        }

        @Override
        public boolean add(Value value) {
            decided = ((BooleanValue) Want.BOOLEAN.take(value)).isTrue() == decides;
            return !decided;
        }

        @Override
        public Value result() {
            return BooleanValue.of(decided == decides);
        }
    }
}
