package dev.morphema.store;

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
 * Turns of a loop that are held back until all are there, then given back in order; equal ones in
 * the order they came. Of many, the values are kept as bytes, which take a fifth of the memory;
 * when even these get too many, they are sorted and spilled, and merged in the end. Not
 * thread-safe; of use once.
 */
public final class SortedTurns {
    /** So many keys of a turn have a code; more are seldom looked at. */
    private static final int CODED = 2;

    /**
     * A turn with more bytes, as with the members of a large group, is packed even if it is one of
     * few.
     */
    private static final int LARGE = 1 << 16;

    /**
     * A turn of the loop.
     *
     * @param names the values of the loop's names
     * @param keys what to sort by
     */
    public record Turn(@Nullable Object[] names, Value[] keys) {
        @Nullable
        Value[] row() {
            return SpillFile.row(keys, Arrays.copyOf(names, names.length, Value[].class));
        }

        static Turn of(@Nullable Value[] row, int keys) {
            Object[] names = Arrays.copyOfRange(row, keys, row.length, Object[].class);
            return new Turn(names, Arrays.copyOf(row, keys));
        }

        private long bytes() {
            long bytes = ValueSize.of(keys);
            for (Object name : names) {
                bytes += name instanceof Value value ? ValueSize.of(value) : 0;
            }
            return bytes;
        }
    }

    /**
     * A turn that is held back.
     *
     * @param first the code of the first key
     * @param second the code of the second key; if there is only one, of what its code does not
     *     tell
     * @param turn null if it is packed
     * @param place where it is packed
     */
    private record Held(long first, long second, @Nullable Turn turn, int place) {
        /** How many bytes it takes, about, beside those of the turn. */
        static final int BYTES = 64;
    }

    private final boolean[] descending;
    private final Comparator<Value[]> order;
    private final MemoryBudget budget;
    private List<Held> held = new ArrayList<>();
    private final List<SpillFile> runs = new ArrayList<>();

    /** Made when there are many. */
    private @Nullable PackedValues packed;

    /** For each key that has a code the first value that is not nothing. */
    private final @Nullable Value[] samples = new Value[CODED];
    /** Whether all values of a key so far have one order. */
    private boolean alike = true;

    private @Nullable Object[] lastNames = {};
    private long bytes;
    private boolean stays;

    /**
     * @param descending for each of the values that a turn is sorted by
     * @param order of these values; fails if they have none
     */
    public SortedTurns(boolean[] descending, Comparator<Value[]> order, MemoryBudget budget) {
        this.descending = descending;
        this.order = order;
        this.budget = budget;
    }

    /** Adds a turn. */
    public void add(Turn turn) {
        long first = code(turn.keys(), 0);
        long second = descending.length == 1 ? SortCode.ofRest(turn.keys()[0], descending[0]) : code(turn.keys(), 1);
        stays = stays || !isOfValues(turn);
        long more = Held.BYTES;
        long size = turn.bytes();
        boolean few = held.size() < PackedValues.MOST_UNPACKED && size < LARGE;
        if (few || stays || sharesNames(turn)) {
            held.add(new Held(first, second, turn, 0));
            more += size;
        } else {
            packed = packed == null ? new PackedValues() : packed;
            held.add(new Held(first, second, null, packed.add(turn.row())));
            more += packed.lastLength();
        }
        lastNames = turn.names();
        bytes += more;
        budget.add(more);
        if (!stays && budget.isTooMuch(bytes)) {
            newSpillFile();
        }
    }

    /** Whether there is nothing but values; the state of a group stays in memory as it is. */
    private static boolean isOfValues(Turn turn) {
        for (Object name : turn.names()) {
            if (name != null && !(name instanceof Value)) {
                return false;
            }
        }
        return true;
    }

    /**
     * Whether a value is the same as that of the turn before: packed, a large one would be there
     * once for each turn.
     */
    private boolean sharesNames(Turn turn) {
        @Nullable Object[] values = turn.names();
        for (int i = 0; i < lastNames.length; i++) {
            if (values[i] == lastNames[i] && values[i] != null) {
                return true;
            }
        }
        return false;
    }

    private long code(Value[] keys, int index) {
        Value key = keys[index];
        Value sample = samples[index];
        if (sample == null && !key.isMissing()) {
            samples[index] = key;
        } else if (sample != null && !key.isMissing()) {
            alike &= SortCode.areAlike(sample, key);
        }
        return SortCode.of(key, descending[index]);
    }

    private PackedValues packed() {
        return Objects.requireNonNull(packed);
    }

    private Turn turn(Held one) {
        return one.turn() == null ? Turn.of(packed().row(one.place()), descending.length) : one.turn();
    }

    private Value[] keys(Held one) {
        return one.turn() == null
                ? packed().row(one.place(), descending.length)
                : one.turn().keys();
    }

    private void newSpillFile() {
        sort();
        SpillFile run = budget.newSpillFile();
        held.forEach(one -> run.add(turn(one).row()));
        run.complete();
        runs.add(run);
        forget();
    }

    private void sort() {
        held.sort(alike ? this::compare : (a, b) -> order.compare(keys(a), keys(b)));
    }

    private int compare(Held a, Held b) {
        if (a.first != b.first) {
            return Long.compare(a.first, b.first);
        }
        boolean same = SortCode.isExact(a.first, descending[0]);
        if (same || descending.length == 1) {
            if (a.second != b.second) {
                return Long.compare(a.second, b.second);
            }
            boolean sameSecond = SortCode.isExact(a.second, descending[descending.length == 1 ? 0 : 1]);
            if (descending.length == 1 ? same || sameSecond : sameSecond && descending.length == CODED) {
                return 0;
            }
        }
        return order.compare(keys(a), keys(b));
    }

    private void forget() {
        held = new ArrayList<>();
        packed = null;
        lastNames = new Object[0];
        budget.add(-bytes);
        bytes = 0;
    }

    /** Gives each turn in order, until one says that no more are wanted. */
    public void each(Predicate<Turn> pass) {
        if (runs.isEmpty()) {
            sort();
            for (Held one : held) {
                if (!pass.test(turn(one))) {
                    break;
                }
            }
            forget();
        } else {
            newSpillFile();
            merge(pass);
        }
    }

    private void merge(Predicate<Turn> pass) {
        PriorityQueue<Merged> next =
                new PriorityQueue<>(Comparator.comparing(Merged::keys, order).thenComparing(Merged::run));
        for (int i = 0; i < runs.size(); i++) {
            Merged merged = new Merged(i, descending.length, runs.get(i).read(budget.readAhead(runs.size())));
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

    /**
     * The turns of one run that are left; of the next one only the keys are values, as long as it
     * waits for its turn.
     */
    private static final class Merged {
        private final int run;
        private final int keys;
        private final SpillFile.Reader rows;
        private Value[] first = {};

        Merged(int run, int keys, SpillFile.Reader rows) {
            this.run = run;
            this.keys = keys;
            this.rows = rows;
        }

        boolean advance() {
            boolean any = rows.advance();
            first = any ? rows.row(keys) : first;
            return any;
        }

        Turn turn() {
            return Turn.of(rows.row(), keys);
        }

        Value[] keys() {
            return first;
        }

        int run() {
            return run;
        }
    }
}
