package dev.morphema.function;

import dev.morphema.function.Function.Partial;
import dev.morphema.function.Function.Starter;
import dev.morphema.value.Comparison;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberCells;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RunningSum;
import dev.morphema.value.Value;

/** The functions over many values that come to one number, in cells and as objects. */
final class Tallies {
    private Tallies() {}

    private static NumberValue number(Value value) {
        return value instanceof NumberValue number ? number : (NumberValue) ParameterKind.NUMBER.take(value);
    }

    /** {@code count}: one cell. */
    static final class Count implements Starter, Tally {
        @Override
        public Partial startPart(Value[] others) {
            return new Counted();
        }

        @Override
        public int size() {
            return 1;
        }

        @Override
        public boolean add(long[] cells, int at, Value value) {
            cells[at]++;
            return true;
        }

        @Override
        public Partial resumed(long[] cells, int at) {
            Counted counted = new Counted();
            counted.count = cells[at];
            return counted;
        }

        @Override
        public boolean counts() {
            return true;
        }

        @Override
        public boolean addsUp() {
            return true;
        }

        @Override
        public Value result(long[] cells, int at) {
            return NumberValue.of(cells[at]);
        }
    }

    private static final class Counted implements Partial {
        private long count;

        @Override
        public boolean add(Value value) {
            count++;
            return true;
        }

        @Override
        public Value result() {
            return NumberValue.of(count);
        }

        @Override
        public Value[] state() {
            return new Value[] {result()};
        }

        @Override
        public void merge(Value[] state) {
            count += ((NumberValue) state[0]).nearestLong();
        }
    }

    /** {@code sum} and {@code avg}: the sum, then how many numbers there were. */
    static final class Sum implements Starter, Tally {
        private final Finish finish;
        private final boolean addsUp;

        /** @param addsUp whether the result is the sum itself */
        private Sum(Finish finish, boolean addsUp) {
            this.finish = finish;
            this.addsUp = addsUp;
        }

        /** {@return what gives the sum itself} */
        static Sum total() {
            return new Sum((total, count) -> total, true);
        }

        /** {@return what gives something else that the sum and the number of its parts come to} */
        static Sum then(Finish finish) {
            return new Sum(finish, false);
        }

        @Override
        public boolean addsUp() {
            return addsUp;
        }

        @Override
        public Partial startPart(Value[] others) {
            return new Summed(finish);
        }

        @Override
        public int size() {
            return NumberCells.SIZE + 1;
        }

        @Override
        public boolean add(long[] cells, int at, Value value) {
            if (NumberCells.add(cells, at, number(value))) {
                cells[at + NumberCells.SIZE]++;
                return true;
            }
            return false;
        }

        @Override
        public Partial resumed(long[] cells, int at) {
            Summed summed = new Summed(finish);
            summed.sum.plus(NumberCells.get(cells, at));
            summed.count = cells[at + NumberCells.SIZE];
            return summed;
        }

        @Override
        public Value result(long[] cells, int at) {
            return finish.of(NumberCells.get(cells, at), cells[at + NumberCells.SIZE]);
        }
    }

    /** What a sum and the number of its parts come to. */
    @FunctionalInterface
    interface Finish {
        Value of(NumberValue total, long count);
    }

    /** A sum, and the number of its parts. */
    private static final class Summed implements Partial {
        private final RunningSum sum = new RunningSum();
        private final Finish finish;
        private long count;

        Summed(Finish finish) {
            this.finish = finish;
        }

        @Override
        public boolean add(Value value) {
            sum.plus(number(value));
            count++;
            return true;
        }

        @Override
        public Value result() {
            return finish.of(sum.total(), count);
        }

        @Override
        public Value[] state() {
            return new Value[] {sum.total(), NumberValue.of(count)};
        }

        @Override
        public void merge(Value[] state) {
            sum.plus((NumberValue) state[0]);
            count += ((NumberValue) state[1]).nearestLong();
        }
    }

    /** {@code min} and {@code max}: the best number, then whether there is one. */
    static final class Best implements Starter, Tally {
        private final int sign;

        /** @param sign above 0 for the largest, below for the smallest */
        Best(int sign) {
            this.sign = sign;
        }

        @Override
        public Partial startPart(Value[] others) {
            return new Chosen(sign);
        }

        @Override
        public int size() {
            return NumberCells.SIZE + 1;
        }

        @Override
        public boolean add(long[] cells, int at, Value value) {
            if (!(value instanceof NumberValue number)) {
                return false;
            }
            boolean any = cells[at + NumberCells.SIZE] != 0;
            if (any && NumberCells.compare(cells, at, number) * sign >= 0) {
                return true;
            }
            boolean put = NumberCells.put(cells, at, number);
            cells[at + NumberCells.SIZE] |= put ? 1 : 0;
            return put;
        }

        @Override
        public Partial resumed(long[] cells, int at) {
            Chosen chosen = new Chosen(sign);
            if (cells[at + NumberCells.SIZE] != 0) {
                chosen.best = NumberCells.get(cells, at);
            }
            return chosen;
        }

        @Override
        public Value result(long[] cells, int at) {
            return cells[at + NumberCells.SIZE] == 0 ? Missing.ABSENT : NumberCells.get(cells, at);
        }
    }

    private static final class Chosen implements Partial {
        private final int sign;
        private Value best = Missing.ABSENT;

        Chosen(int sign) {
            this.sign = sign;
        }

        @Override
        public boolean add(Value value) {
            Value scalar = ParameterKind.scalar(value);
            if (best == Missing.ABSENT || Comparison.compareAlike(scalar, best) * sign > 0) {
                best = scalar;
            }
            return true;
        }

        @Override
        public Value result() {
            return best;
        }

        @Override
        public Value[] state() {
            return new Value[] {best};
        }

        @Override
        public void merge(Value[] state) {
            if (state[0] != Missing.ABSENT) {
                add(state[0]);
            }
        }
    }
}
