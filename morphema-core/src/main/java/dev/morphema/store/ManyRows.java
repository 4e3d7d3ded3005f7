package dev.morphema.store;

import dev.morphema.value.Many;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Any number of rows for a key, each of which leads to the next. */
public final class ManyRows implements KeyedRows {
    private static final int NONE = -1;
    private static final int FIRST_SIZE = 4;

    // The cells of a key: which row of it is the first, and which the last.
    private static final int FIRST = 0;
    private static final int LAST = 1;
    private static final int CELLS = 2;

    private final boolean packs;
    private final KeyTable keys = new KeyTable(CELLS);
    /** The first rows, or all. */
    private final List<Value> rows = new ArrayList<>();

    /** Made when there are many. */
    private @Nullable PackedValues further;
    /** For each row where it is packed, if it is. */
    private int[] places = new int[FIRST_SIZE];
    /** For each row the next of its key. */
    private int[] next = new int[FIRST_SIZE];

    private int size;

    /**
     * @param packs whether each row is a value of its own; others can have large parts that are the
     * same
     */
    public ManyRows(boolean packs) {
        this.packs = packs;
    }

    @Override
    public @Nullable Value add(KeyCode key, Value row, Value... range) {
        int added = add(row);
        int number = keys.find(key);
        if (number < 0) {
            number = keys.add(key);
            keys.cells()[keys.cellsOf(number) + FIRST] = added;
        } else {
            next[(int) keys.cells()[keys.cellsOf(number) + LAST]] = added;
        }
        keys.cells()[keys.cellsOf(number) + LAST] = added;
        return null;
    }

    private int add(Value row) {
        if (size == next.length) {
            places = Arrays.copyOf(places, size * 2);
            next = Arrays.copyOf(next, size * 2);
        }
        next[size] = NONE;
        if (packs && size >= PackedValues.MOST_UNPACKED) {
            further = further == null ? new PackedValues() : further;
            places[size] = further.add(row);
        } else {
            rows.add(row);
        }
        return size++;
    }

    @Override
    public Value find(KeyCode key, Value point) {
        int number = keys.find(key);
        if (number < 0) {
            return Many.NONE;
        }
        List<Value> found = new ArrayList<>();
        for (int row = (int) keys.cells()[keys.cellsOf(number) + FIRST]; row != NONE; row = next[row]) {
            found.add(row(row));
        }
        return Many.owned(found);
    }

    @Override
    public List<Value> all() {
        List<Value> all = new ArrayList<>(size);
        for (int row = 0; row < size; row++) {
            all.add(row(row));
        }
        return all;
    }

    private Value row(int number) {
        return further == null || number < rows.size() ? rows.get(number) : further.value(places[number]);
    }
}
