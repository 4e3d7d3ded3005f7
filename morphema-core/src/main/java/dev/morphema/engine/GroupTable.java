package dev.morphema.engine;

import dev.morphema.store.KeyCode;
import dev.morphema.store.KeyTable;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;

/**
 * Groups by key, in order of first appearance, and cells for what is tallied of each. Not
 * thread-safe.
 */
final class GroupTable implements Iterable<Group> {
    private final KeyTable keys;
    private final List<Group> groups = new ArrayList<>();

    /** @param tallied how many cells each group has */
    GroupTable(int tallied) {
        keys = new KeyTable(tallied);
    }

    int size() {
        return groups.size();
    }

    Group get(int number) {
        return groups.get(number);
    }

    /** {@return the array of the cells}; another one after a group was added. */
    long[] cells() {
        return keys.cells();
    }

    /** {@return the first of the cells of a group} */
    int cellsOf(int number) {
        return keys.cellsOf(number);
    }

    /** {@return the number of the group of a key, counted from 0, or -1} */
    int find(KeyCode key) {
        return keys.find(key);
    }

    /** Adds a group whose key is not there yet; gives its number. */
    int add(KeyCode key, Group group) {
        groups.add(group);
        return keys.add(key);
    }

    @Override
    public Iterator<Group> iterator() {
        return groups.iterator();
    }
}
