package dev.morphema.store;

import dev.morphema.value.Comparison;
import dev.morphema.value.Hashing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import dev.morphema.value.ValueSize;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Members of groups that are too many to be begun while they come. They are spilled in parts, by
 * the hashes of their keys; in the end each part gets to know where its groups appeared first, is
 * parted once more if even its keys are too many, and all members are sorted by that: so each group
 * comes by itself, in order of first appearance, and no row is read or written more often than with
 * the logarithm of the number of groups. Not thread-safe; of use once.
 */
public final class PartitionedGroups {
    private static final int PARTS = 16;
    /** What a key takes beside its values, in bytes, about. */
    private static final int KEY = 64;

    private static final int LEVELS = 8;

    /** Takes members in the end. */
    public interface Taker {
        /**
         * Takes a member.
         *
         * @param group the same number for all members of a group, and a larger one for the next
         *     group
         * @return whether more are wanted
         */
        boolean take(long group, Value[] keys, Value member);
    }

    private final MemoryBudget budget;
    private final Parts parts;
    private final KeyCode code = new KeyCode();
    private long count;

    public PartitionedGroups(MemoryBudget budget) {
        this.budget = budget;
        this.parts = new Parts(0);
    }

    /** Adds a member. */
    public void add(Value[] keys, Value member) {
        @Nullable Value[] row = Arrays.copyOf(keys, keys.length + 2);
        row[keys.length] = member;
        row[keys.length + 1] = NumberValue.of(count++);
        parts.add(keys, row);
    }

    /** Gives all members, those of one group together, until no more are wanted. */
    public void each(Taker taker) {
        SortedTurns sorted = new SortedTurns(new boolean[] {false}, (a, b) -> Comparison.compare(a[0], b[0]), budget);
        parts.number(sorted);
        sorted.each(turn -> {
            @Nullable Object[] row = turn.names();
            Value[] keys = Arrays.copyOf(row, row.length - 1, Value[].class);
            Value member = (Value) Objects.requireNonNull(row[row.length - 1]);
            return taker.take(((NumberValue) turn.keys()[0]).nearestLong(), keys, member);
        });
    }

    /** Rows by the hashes of their keys. */
    private final class Parts {
        private final int level;
        private final @Nullable SpillFile[] rows = new SpillFile[PARTS];

        Parts(int level) {
            this.level = level;
        }

        public void add(Value[] keys, @Nullable Value[] row) {
            code.set(keys);
            // Of each level another part of the hash.
            int part = Hashing.of(code.hash(), level) & PARTS - 1;
            SpillFile laid = rows[part];
            if (laid == null) {
                laid = budget.newSpillFile();
                rows[part] = laid;
            }
            laid.add(row);
        }

        void number(SortedTurns sorted) {
            for (SpillFile part : rows) {
                if (part != null) {
                    part.complete();
                }
            }
            for (SpillFile part : rows) {
                if (part != null) {
                    number(part, sorted);
                }
            }
        }

        private void number(SpillFile part, SortedTurns sorted) {
            KeyTable first = new KeyTable(1);
            Parts deeper = new Parts(level + 1);
            long bytes = 0;
            SpillFile.Reader reader = part.read(budget.readAhead(1));
            for (@Nullable Value[] row = reader.next(); row != null; row = reader.next()) {
                Value[] keys = Arrays.copyOf(row, row.length - 2, Value[].class);
                code.set(keys);
                int number = first.find(code);
                if (number < 0 && budget.isTooMuch(bytes) && level < LEVELS) {
                    deeper.add(keys, row);
                    continue;
                }
                long place = ((NumberValue) Objects.requireNonNull(row[row.length - 1])).nearestLong();
                if (number < 0) {
                    number = first.add(code);
                    first.cells()[first.cellsOf(number)] = place;
                    long more = KEY + ValueSize.of(keys);
                    budget.add(more);
                    bytes += more;
                }
                Value group = NumberValue.of(first.cells()[first.cellsOf(number)]);
                sorted.add(
                        new SortedTurns.Turn(Arrays.copyOf(row, row.length - 1, Object[].class), new Value[] {group}));
            }
            budget.add(-bytes);
            deeper.number(sorted);
        }
    }
}
