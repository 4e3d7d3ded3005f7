package dev.morphema.engine;

import dev.morphema.value.SortCode;
import dev.morphema.value.Value;
import dev.morphema.value.ValueSize;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.PriorityQueue;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Turns of a loop that are held back until all are there, then given back in order; equal ones in the order they came.
 * When they get too many, they are sorted and laid down, and merged in the end. Not thread-safe; of use once.
 */
final class SortedTurns {
    /** A turn and the two objects around it, in bytes, about. */
    private static final int TURN = 64;

    /** So many keys of a turn have a code; more are seldom looked at. */
    private static final int CODED = 2;

    /**
     * A turn that is held back.
     *
     * @param names the values of the loop's names
     * @param keys what to sort by
     * @param first the code of the first key
     * @param second the code of the second key, if there is one
     */
    record Turn(@Nullable Object[] names, Value[] keys, long first, long second) {
        Turn(@Nullable Object[] names, Value[] keys) {
            this(names, keys, 0, 0);
        }

        /** Whether there is nothing but values; the state of a group stays in memory. */
        boolean canBeLaidDown() {
            return Arrays.stream(names).allMatch(name -> name == null || name instanceof Value);
        }

        @Nullable
        Value[] row() {
            return LaidDown.row(keys, Arrays.copyOf(names, names.length, Value[].class));
        }

        static Turn of(@Nullable Value[] row, int keys) {
            Object[] names = Arrays.copyOfRange(row, keys, row.length, Object[].class);
            return new Turn(names, Arrays.copyOf(row, keys));
        }

        private long bytes() {
            long bytes = TURN + ValueSize.of(keys);
            for (Object name : names) {
                bytes += name instanceof Value value ? ValueSize.of(value) : 0;
            }
            return bytes;
        }
    }

    private final boolean[] descending;
    private final Comparator<Value[]> order;
    private final Holdings holdings;
    private final List<Turn> held = new ArrayList<>();
    private final List<LaidDown> runs = new ArrayList<>();
    /** How many keys have a code. */
    private final int coded;
    /** For each of these the first value that is not nothing. */
    private final @Nullable Value[] samples = new Value[CODED];
    /** Whether all values of a key so far have one order. */
    private boolean alike = true;

    private long bytes;
    private boolean stays;

    /**
     * @param descending for each of the values that a turn is sorted by
     * @param order of these values; fails if they have none
     */
    SortedTurns(boolean[] descending, Comparator<Value[]> order, Holdings holdings) {
        this.descending = descending;
        this.coded = Math.min(descending.length, CODED);
        this.order = order;
        this.holdings = holdings;
    }

    /**
     * Adds a turn.
     *
     * @param names the values of the loop's names
     * @param keys what to sort by
     */
    void add(@Nullable Object[] names, Value[] keys) {
        Turn turn = new Turn(names, keys, code(keys, 0), code(keys, 1));
        held.add(turn);
        stays = stays || !turn.canBeLaidDown();
        long more = turn.bytes();
        bytes += more;
        holdings.add(more);
        if (!stays && holdings.isTooMuch(bytes)) {
            layDown();
        }
    }

    private long code(Value[] keys, int index) {
        if (index >= coded) {
            return 0;
        }
        Value key = keys[index];
        Value sample = samples[index];
        if (sample == null && !key.isNothing()) {
            samples[index] = key;
        } else if (sample != null && !key.isNothing()) {
            alike &= SortCode.areAlike(sample, key);
        }
        return SortCode.of(key, descending[index]);
    }

    private void layDown() {
        sort();
        LaidDown run = holdings.layDown();
        held.forEach(turn -> run.add(turn.row()));
        run.complete();
        runs.add(run);
        forget();
    }

    private void sort() {
        held.sort(alike ? this::compare : (a, b) -> order.compare(a.keys(), b.keys()));
    }

    private int compare(Turn a, Turn b) {
        if (a.first != b.first) {
            return Long.compare(a.first, b.first);
        }
        if (SortCode.isExact(a.first, descending[0])) {
            if (a.second != b.second) {
                return Long.compare(a.second, b.second);
            }
            if (descending.length == 1 || descending.length == CODED && SortCode.isExact(a.second, descending[1])) {
                return 0;
            }
        }
        return order.compare(a.keys(), b.keys());
    }

    private void forget() {
        held.clear();
        holdings.add(-bytes);
        bytes = 0;
    }

    /** Gives each turn in order, until one says that no more are wanted. */
    void each(Predicate<Turn> pass) {
        if (runs.isEmpty()) {
            sort();
            for (Turn turn : held) {
                if (!pass.test(turn)) {
                    break;
                }
            }
            forget();
        } else {
            layDown();
            merge(pass);
        }
    }

    private void merge(Predicate<Turn> pass) {
        PriorityQueue<Merged> next =
                new PriorityQueue<>(Comparator.comparing(Merged::keys, order).thenComparing(Merged::run));
        for (int i = 0; i < runs.size(); i++) {
            Merged merged = new Merged(i, descending.length, runs.get(i).read(holdings.readAhead(runs.size())));
            if (merged.advance()) {
                next.add(merged);
            }
        }
        for (Merged first = next.poll(); first != null; first = next.poll()) {
            if (!pass.test(first.turn())) {
                return;
            }
            if (first.advance()) {
                next.add(first);
            }
        }
    }

    /** The turns of one run that are left. */
    private static final class Merged {
        private final int run;
        private final int keys;
        private final LaidDown.Reader rows;
        private @Nullable Turn turn;

        Merged(int run, int keys, LaidDown.Reader rows) {
            this.run = run;
            this.keys = keys;
            this.rows = rows;
        }

        boolean advance() {
            @Nullable Value[] row = rows.next();
            turn = row == null ? null : Turn.of(row, keys);
            return turn != null;
        }

        Turn turn() {
            return Objects.requireNonNull(turn);
        }

        Value[] keys() {
            return turn().keys();
        }

        int run() {
            return run;
        }
    }
}
