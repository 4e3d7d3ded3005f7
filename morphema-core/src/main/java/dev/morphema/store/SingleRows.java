package dev.morphema.store;

import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** One row for a key. */
final class SingleRows implements KeyedRows {
    private final boolean packs;
    private final KeyTable keys = new KeyTable(0);
    /** The first rows by the numbers of their keys, or all. */
    private final List<Value> rows = new ArrayList<>();

    /** Made when there are many. */
    private @Nullable PackedRows further;

    /**
     * @param packs whether each row is a value of its own; others can have large parts that are the
     * same
     */
    SingleRows(boolean packs) {
        this.packs = packs;
    }

    @Override
    public @Nullable Value add(KeyCode key, Value row, Value... range) {
        Value before = find(key);
        if (before == null && packs && rows.size() == PackedValues.MOST_UNPACKED) {
            further = further == null ? new PackedRows() : further;
            further.add(key, row);
        } else if (before == null) {
            keys.add(key);
            rows.add(row);
        }
        return before;
    }

    private @Nullable Value find(KeyCode key) {
        int number = keys.find(key);
        if (number >= 0) {
            return rows.get(number);
        }
        return further == null ? null : further.find(key);
    }

    @Override
    public Value find(KeyCode key, Value point) {
        Value row = find(key);
        return row == null ? Missing.ABSENT : row;
    }

    @Override
    public List<Value> all() {
        List<Value> all = new ArrayList<>(rows);
        if (further != null) {
            further.each(all::add);
        }
        return all;
    }
}
