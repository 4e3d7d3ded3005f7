package dev.morphema.store;

import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A row for each of the ranges that a key has. */
final class RangedRows implements KeyedRows {
    private final boolean many;
    private final KeyTable keys = new KeyTable(0);
    /** By the numbers of their keys. */
    private final List<KeyRanges> ranges = new ArrayList<>();

    private final List<Value> all = new ArrayList<>();

    /** @param many whether ranges of a key may overlap */
    RangedRows(boolean many) {
        this.many = many;
    }

    @Override
    public @Nullable Value add(KeyCode key, Value row, Value... range) {
        int number = keys.find(key);
        if (number < 0) {
            number = keys.add(key);
            ranges.add(new KeyRanges(many));
        }
        all.add(row);
        return ranges.get(number).add(row, range[0], range[1]);
    }

    @Override
    public Value find(KeyCode key, Value point) {
        int number = keys.find(key);
        List<Value> found = number < 0 ? List.of() : ranges.get(number).find(point);
        return many ? Many.owned(found) : found.isEmpty() ? Missing.ABSENT : found.get(0);
    }

    @Override
    public List<Value> all() {
        return all;
    }
}
