package dev.morphema.store;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Numbers keys, in the order in which they are added. Keys lie in one array, together with cells
 * for what is known of each: with keys in any order, each look at another object would be one at
 * another place of the memory. Not thread-safe while keys are added; then safe for use by many
 * threads.
 */
public final class KeyTable {
    private static final int FIRST_ROWS = 2;
    private static final int KEY_CELLS = 2;

    private final Places numbers = new Places();

    private final int rowSize;
    /** For each key its two cells, then those of what is known of it. */
    private long[] rows;
    /** The keys that two cells do not hold, by number; null if there is none. */
    private @Nullable Object @Nullable [] others;

    private int size;

    /** @param cells how many cells there are for each key beside its own */
    public KeyTable(int cells) {
        rowSize = KEY_CELLS + cells;
        rows = new long[FIRST_ROWS * rowSize];
    }

    int size() {
        return size;
    }

    /** {@return the array of the cells}; another one after a key was added. */
    public long[] cells() {
        return rows;
    }

    /** {@return the first of the cells for what is known of a key} */
    public int cellsOf(int number) {
        return number * rowSize + KEY_CELLS;
    }

    /** {@return the number of a key, counted from 0, or -1} */
    public int find(KeyCode key) {
        int hash = key.hash();
        for (int place = numbers.first(hash); place >= 0; place = numbers.next(hash, place)) {
            int number = numbers.number(place);
            if (has(number, key)) {
                return number;
            }
        }
        return -1;
    }

    private boolean has(int number, KeyCode key) {
        int row = number * rowSize;
        return rows[row] == key.first()
                && rows[row + 1] == key.second()
                // Only a text that is not empty has something in its second cell.
                && (key.second() != 0 || hasOther(number, key));
    }

    private boolean hasOther(int number, KeyCode key) {
        Object other = others == null || number >= others.length ? null : others[number];
        return Objects.equals(other, key.other());
    }

    /** Adds a key that is not there yet; gives its number. */
    public int add(KeyCode key) {
        int number = size++;
        if (size * rowSize > rows.length) {
            rows = Arrays.copyOf(rows, rows.length * 2);
        }
        rows[number * rowSize] = key.first();
        rows[number * rowSize + 1] = key.second();
        Object other = key.kept();
        if (other != null) {
            if (others == null || number >= others.length) {
                others = Arrays.copyOf(others == null ? new Object[0] : others, rows.length / rowSize);
            }
            others[number] = other;
        }
        numbers.add(key.hash(), number);
        return number;
    }
}
