package dev.morphema.store;

import dev.morphema.value.Comparison;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The rows that one key of a table has, each for a range of values: from its low end, which is
 * inside, to its high end, which is not. An end that is nothing, or blank, is open. Not thread-safe
 * while rows are added; then safe for use by many threads.
 */
final class KeyRanges {
    /**
     * A row and the ends of its range, null if open; texts of numbers, such as those of a CSV file,
     * are numbers.
     */
    private record Row(
            Value value, @Nullable Value low, @Nullable Value high) {
        boolean holds(Value point) {
            return (low == null || compare(point, low) >= 0) && (high == null || compare(point, high) < 0);
        }

        boolean overlaps(Row other) {
            return isBelow(low, other.high) && isBelow(other.low, high);
        }

        private static boolean isBelow(@Nullable Value low, @Nullable Value high) {
            return low == null || high == null || compare(low, high) < 0;
        }

        /**
         * Whether the range holds something, and its ends are of a kind, if there is one so far.
         */
        boolean isOrderly(@Nullable Kind kind) {
            return isBelow(low, high) && isOf(kind, low) && isOf(kind, high) && (low == null || isOf(low.kind(), high));
        }

        private static boolean isOf(@Nullable Kind kind, @Nullable Value end) {
            return kind == null || end == null || end.kind() == kind;
        }

        @Nullable
        Kind kind() {
            return low != null ? low.kind() : high != null ? high.kind() : null;
        }
    }

    private final boolean many;
    /** All rows, in the order in which they came. */
    private final List<Row> rows = new ArrayList<>(1);
    /**
     * All rows by their low ends, where ranges do not overlap and their ends have one order, so
     * that a row need not be looked for among all; else null.
     */
    private @Nullable TreeMap<Value, Row> byLow;

    /** The kind of all ends; null while there is none. */
    private @Nullable Kind kind;

    /** @param many whether ranges may overlap */
    KeyRanges(boolean many) {
        this.many = many;
        // The open end is the lowest of all.
        this.byLow = many ? null : new TreeMap<>(Comparator.nullsFirst(Comparison::compare));
    }

    /**
     * Adds a row; gives one whose range overlaps, if that may not be, so that this one was not
     * added
     */
    @Nullable
    Value add(Value value, Value from, Value to) {
        Row row = new Row(value, end(from), end(to));
        Row before = many ? null : overlapping(row);
        if (before != null) {
            return before.value();
        }
        rows.add(row);
        if (byLow != null) {
            byLow.put(row.low(), row);
        }
        return null;
    }

    private @Nullable Row overlapping(Row row) {
        if (byLow != null && row.isOrderly(kind)) {
            kind = kind == null ? row.kind() : kind;
            Map.Entry<Value, Row> below = byLow.floorEntry(row.low());
            Map.Entry<Value, Row> above = byLow.higherEntry(row.low());
            return below != null && below.getValue().overlaps(row)
                    ? below.getValue()
                    : above != null && above.getValue().overlaps(row) ? above.getValue() : null;
        }
        byLow = null;
        return rows.stream().filter(row::overlaps).findFirst().orElse(null);
    }

    /** {@return all rows whose range holds a value, in the order in which they came} */
    List<Value> find(Value asked) {
        Value point = asked.isMissing() ? null : asEnd(asked);
        if (point == null) {
            return List.of();
        }
        if (byLow != null && (kind == null || kind == Kind.TEXT || kind == point.kind())) {
            Value low = kind == Kind.TEXT ? TextValue.of(point.toString()) : point;
            Map.Entry<Value, Row> below = byLow.floorEntry(low);
            return below != null && below.getValue().holds(low)
                    ? List.of(below.getValue().value())
                    : List.of();
        }
        return rows.stream().filter(row -> row.holds(point)).map(Row::value).toList();
    }

    private static @Nullable Value end(Value value) {
        boolean open = value.isMissing()
                || value instanceof TextValue text && text.text().isBlank();
        return open ? null : asEnd(value);
    }

    private static Value asEnd(Value value) {
        return value instanceof TextValue text
                ? NumberValue.parse(text.text()).<Value>map(number -> number).orElse(value)
                : value;
    }

    private static int compare(Value a, Value b) {
        return a.kind() == b.kind() ? Comparison.compare(a, b) : Comparison.compareTexts(a.toString(), b.toString());
    }
}
