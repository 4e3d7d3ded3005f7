package dev.morphema.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;

/**
 * Groups by key, in order of first appearance. Keys, and what is tallied of each group, lie in one array: with groups in any
 * order, each look at another object would be one at another place of the memory. Not thread-safe.
 */
final class GroupTable implements Iterable<Group> {
    private static final int FIRST_PLACES = 4;
    private static final int KEY_CELLS = 2;

    /** For each place the upper half of a group's hash, and its number, counted from 1; 0 if the place is free. */
    private long[] places = new long[FIRST_PLACES];

    private final int rowSize;
    /** For each group the two cells of its key, then those of what is tallied. */
    private long[] rows;

    private final List<Group> groups = new ArrayList<>();

    /** @param tallied how many cells each group has beside its key */
    GroupTable(int tallied) {
        rowSize = KEY_CELLS + tallied;
        rows = new long[FIRST_PLACES / 2 * rowSize];
    }

    int size() {
        return groups.size();
    }

    Group get(int number) {
        return groups.get(number);
    }

    /** {@return the array of the cells}; another one after a group was added. */
    long[] cells() {
        return rows;
    }

    /** {@return the first of the tallied cells of a group} */
    int cellsOf(int number) {
        return number * rowSize + KEY_CELLS;
    }

    /** {@return the number of the group of a key, counted from 0, or -1} */
    int find(KeyCode key) {
        int hash = key.hash();
        int mask = places.length - 1;
        for (int i = hash & mask; places[i] != 0; i = i + 1 & mask) {
            if ((int) (places[i] >>> Integer.SIZE) == hash && has((int) places[i] - 1, key)) {
                return (int) places[i] - 1;
            }
        }
        return -1;
    }

    private boolean has(int number, KeyCode key) {
        int row = number * rowSize;
        return rows[row] == key.first()
                && rows[row + 1] == key.second()
                // Only a text that is not empty has something in its second cell.
                && (key.second() != 0 || Objects.equals(groups.get(number).other(), key.other()));
    }

    /** Adds a group whose key is not there yet; {@return its number}. */
    int add(KeyCode key, Group group) {
        int number = groups.size();
        groups.add(group);
        if (groups.size() * rowSize > rows.length) {
            rows = Arrays.copyOf(rows, rows.length * 2);
        }
        rows[number * rowSize] = key.first();
        rows[number * rowSize + 1] = key.second();
        if (groups.size() * 2 > places.length) {
            grow();
        }
        put(places, (long) key.hash() << Integer.SIZE | number + 1);
        return number;
    }

    private void grow() {
        long[] more = new long[places.length * 4];
        for (long place : places) {
            if (place != 0) {
                put(more, place);
            }
        }
        places = more;
    }

    private static void put(long[] into, long place) {
        int mask = into.length - 1;
        int i = (int) (place >>> Integer.SIZE) & mask;
        while (into[i] != 0) {
            i = i + 1 & mask;
        }
        into[i] = place;
    }

    @Override
    public Iterator<Group> iterator() {
        return groups.iterator();
    }
}
