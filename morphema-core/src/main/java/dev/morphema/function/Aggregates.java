package dev.morphema.function;

import static dev.morphema.function.Trait.ASKS_PRESENCE;
import static dev.morphema.function.Trait.FORM_OF_FIRST;
import static dev.morphema.function.Trait.ONLY_FIRST;
import static dev.morphema.function.Trait.ORDERS_ITEMS;
import static dev.morphema.function.Trait.READS_ITEMS;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Comparison;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
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
        functions.aggregate("first(items: many): any", others -> new First(), FORM_OF_FIRST, ONLY_FIRST);
        functions.aggregate("last(items: many): any", others -> new Last(), FORM_OF_FIRST);
        functions.aggregate("nth(items: many, position: integer): any", new Nth(), FORM_OF_FIRST);
        functions.aggregate("join(items: many, mark?: text): text", Join::new, READS_ITEMS);
        functions.aggregate("distinct(items: many): list", others -> new Distinct(), FORM_OF_FIRST, READS_ITEMS);
        functions.aggregate(
                "sorted(items: many): list",
                others -> new Collected(Aggregates::sorted),
                FORM_OF_FIRST,
                READS_ITEMS,
                ORDERS_ITEMS);
        functions.aggregate(
                "reversed(items: many): list", others -> new Collected(Aggregates::reversed), FORM_OF_FIRST);
        functions.aggregate("exists(items: many): boolean", others -> new Exists(), ASKS_PRESENCE);
        functions.aggregate("any(items: many): boolean", others -> new Truth(true), READS_ITEMS);
        functions.aggregate("all(items: many): boolean", others -> new Truth(false), READS_ITEMS);
    }

    private static void reversed(List<Value> items) {
        Collections.reverse(items);
    }

    private static void sorted(List<Value> items) {
        items.sort(Comparison::compareAlike);
    }

    private static final class First implements Function.Partial {
        private Value first = Missing.ABSENT;

        @Override
        public boolean add(Value value) {
            first = value;
            return false;
        }

        @Override
        public Value result() {
            return first;
        }

        @Override
        public Value[] state() {
            return new Value[] {first};
        }

        @Override
        public void merge(Value[] state) {
            first = first == Missing.ABSENT ? state[0] : first;
        }
    }

    /**
     * {@code nth}: all values need only be counted; of a part the position of the first is not
     * known, so it holds them.
     */
    private static final class Nth implements Function.Starter {
        private static long position(Value[] others) {
            NumberValue position = (NumberValue) others[0];
            if (position.sign() <= 0) {
                throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "Positions count from 1.")
                        .withValue(position.toString()));
            }
            return position.nearestLong();
        }

        @Override
        public Function.Partial startPart(Value[] others) {
            return new FirstOf(position(others));
        }

        @Override
        public Function.Accumulator start(Value[] others) {
            return new Counted(position(others));
        }
    }

    /** Holds values in order. */
    private abstract static class Items implements Function.Partial {
        final List<Value> items = new ArrayList<>();

        @Override
        public final Value[] state() {
            return items.toArray(new Value[0]);
        }

        @Override
        public final void merge(Value[] state) {
            items.addAll(Arrays.asList(state));
        }
    }

    /** The first values, up to the one that is wanted if no other part comes before. */
    private static final class FirstOf extends Items {
        private final long position;

        FirstOf(long position) {
            this.position = position;
        }

        @Override
        public boolean add(Value value) {
            items.add(value);
            return items.size() < position;
        }

        @Override
        public Value result() {
            return position <= items.size() ? items.get((int) position - 1) : Missing.ABSENT;
        }
    }

    private static final class Counted implements Function.Accumulator {
        private long missing;
        private Value found = Missing.ABSENT;

        Counted(long position) {
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

    private static final class Last implements Function.Partial {
        private Value last = Missing.ABSENT;

        @Override
        public boolean add(Value value) {
            last = value;
            return true;
        }

        @Override
        public Value result() {
            return last;
        }

        @Override
        public Value[] state() {
            return new Value[] {last};
        }

        @Override
        public void merge(Value[] state) {
            last = state[0] == Missing.ABSENT ? last : state[0];
        }
    }

    private static final class Join implements Function.Partial {
        private final String mark;
        private @Nullable StringBuilder joined;

        Join(Value[] others) {
            this.mark = others.length > 0 && others[0] instanceof TextValue text ? text.text() : "";
        }

        @Override
        public boolean add(Value value) {
            String text = ParameterKind.TEXT.take(value).toString();
            if (joined == null) {
                joined = new StringBuilder(text);
            } else {
                joined.append(mark).append(text);
            }
            return true;
        }

        @Override
        public Value result() {
            return joined == null ? Missing.ABSENT : TextValue.of(joined.toString());
        }

        @Override
        public Value[] state() {
            return new Value[] {result()};
        }

        @Override
        public void merge(Value[] state) {
            if (state[0] != Missing.ABSENT) {
                add(state[0]);
            }
        }
    }

    private static final class Distinct implements Function.Partial {
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

        @Override
        public Value[] state() {
            return items.values().toArray(new Value[0]);
        }

        @Override
        public void merge(Value[] state) {
            for (Value item : state) {
                add(item);
            }
        }
    }

    private static final class Collected extends Items {
        private final Consumer<List<Value>> finish;

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

    private static final class Exists implements Function.Partial {
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

        @Override
        public Value[] state() {
            return new Value[] {result()};
        }

        @Override
        public void merge(Value[] state) {
            found |= state[0] == BooleanValue.TRUE;
        }
    }

    /** Whether any is true, or all are. */
    private static final class Truth implements Function.Partial {
        private final boolean decides;
        private boolean decided;

        Truth(boolean decides) {
            this.decides = decides;
        }

        @Override
        public boolean add(Value value) {
            decided = ((BooleanValue) ParameterKind.BOOLEAN.take(value)).isTrue() == decides;
            return !decided;
        }

        @Override
        public Value result() {
            return BooleanValue.of(decided == decides);
        }

        @Override
        public Value[] state() {
            return new Value[] {BooleanValue.of(decided)};
        }

        @Override
        public void merge(Value[] state) {
            decided |= state[0] == BooleanValue.TRUE;
        }
    }
}
