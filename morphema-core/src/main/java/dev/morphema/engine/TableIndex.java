package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.value.Comparison;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Many;
import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The rows of a table by their keys. Not changed once it is filled; then safe for use by many threads. */
final class TableIndex {
    /** So few rows are found sooner as they are. */
    private static final int MOST_UNPACKED = 1 << 10;

    /** A row with the ends of its range, which are null for a table without ranges. */
    private record Row(
            Value value, @Nullable Value from, @Nullable Value to) {}

    private final Span span;
    private final boolean many;
    private final boolean ranged;
    /** The keys, but for those of packed rows. */
    private final KeyTable numbers = new KeyTable(0);
    /** The first rows by the numbers of their keys, in a table in which a key has one row. */
    private final List<Value> single = new ArrayList<>();
    /** Further such rows. */
    private final PackedRows packed = new PackedRows();
    /** The rows of each key, in other tables. */
    private final List<List<Row>> several = new ArrayList<>();
    /** All rows in order, where they are not those of the keys in their order. */
    private final List<Value> all = new ArrayList<>();
    /** All rows once they were asked for. Threads may each have made it; all are alike. */
    private @Nullable Many rowsOnce;

    /** The kind of each key column, to which an asked key is converted; null while it is not known or mixed. */
    private @Nullable Kind @Nullable [] kinds;

    TableIndex(Span span, boolean many, boolean ranged) {
        this.span = span;
        this.many = many;
        this.ranged = ranged;
    }

    /** {@return all rows, in order} */
    Many rows() {
        Many known = rowsOnce;
        if (known == null) {
            known = Many.owned(all.isEmpty() ? rowsOfKeys() : all);
            rowsOnce = known;
        }
        return known;
    }

    private List<Value> rowsOfKeys() {
        List<Value> rows = new ArrayList<>(single.size() + packed.size());
        rows.addAll(single);
        packed.each(rows::add);
        return rows;
    }

    /**
     * Adds a row.
     *
     * @param keys its exact keys
     * @param range the two ends of its range, or null
     * @throws ProblemException if the key came before and may not
     */
    void add(Value row, Value[] keys, Value @Nullable [] range) {
        learnKinds(keys);
        KeyCode key = new KeyCode();
        key.set(keys);
        if (!many && !ranged) {
            addSingle(row, keys, key);
        } else {
            addToSeveral(row, key, keys, range);
        }
    }

    private void addSingle(Value row, Value[] keys, KeyCode key) {
        Value before = single(key);
        if (before != null) {
            throw twice(before, row, keys);
        }
        if (single.size() < MOST_UNPACKED) {
            numbers.add(key);
            single.add(row);
        } else {
            packed.add(key, row);
        }
    }

    /** {@return the row of a key that has at most one, or null} */
    private @Nullable Value single(KeyCode key) {
        int number = numbers.find(key);
        return number < 0 ? packed.find(key) : single.get(number);
    }

    private void addToSeveral(Value row, KeyCode key, Value[] keys, Value @Nullable [] range) {
        int number = numbers.find(key);
        boolean isNew = number < 0;
        if (isNew) {
            number = numbers.add(key);
        }
        all.add(row);
        if (isNew) {
            several.add(new ArrayList<>(1));
        }
        Row added = new Row(row, range == null ? null : range[0], range == null ? null : range[1]);
        List<Row> same = several.get(number);
        for (Row before : same) {
            if (!many && overlap(before, added)) {
                throw twice(before.value(), row, keys);
            }
        }
        same.add(added);
    }

    /** Adds an entry of an inline table: a row of it has a key and a value, a look-up gives the value alone. */
    void addEntry(Value value, Value[] key) {
        add(value, key, null);
        RecordValue.Builder row = RecordValue.builder();
        row.put(FieldName.of("key"), key[0]);
        row.put(FieldName.of("value"), value);
        all.add(row.build());
    }

    private void learnKinds(Value[] keys) {
        if (kinds == null) {
            kinds = Arrays.stream(keys).map(Value::kind).toArray(Kind[]::new);
            return;
        }
        for (int i = 0; i < keys.length; i++) {
            if (kinds[i] != keys[i].kind() && !keys[i].isNothing()) {
                kinds[i] =
                        kinds[i] != null && (kinds[i] == Kind.ABSENT || kinds[i] == Kind.NULL) ? keys[i].kind() : null;
            }
        }
    }

    /** {@return the row, or rows, of a key; absent if there is none} */
    Value find(Value[] asked) {
        int exact = ranged ? asked.length - 1 : asked.length;
        Value[] keys = new Value[exact];
        for (int i = 0; i < exact; i++) {
            Value converted = converted(asked[i], kinds == null ? null : kinds[i]);
            if (converted == null) {
                return none();
            }
            keys[i] = converted;
        }
        KeyCode key = new KeyCode();
        key.set(keys);
        if (!many && !ranged) {
            Value row = single(key);
            return row == null ? Nothing.ABSENT : row;
        }
        int number = numbers.find(key);
        if (number < 0) {
            return none();
        }
        List<Row> found = several.get(number);
        if (ranged) {
            Value point = asked[exact];
            found = found.stream().filter(row -> holds(row, point)).toList();
        }
        if (many) {
            return Many.of(found.stream().map(Row::value).toList());
        }
        return found.isEmpty() ? Nothing.ABSENT : found.get(0).value();
    }

    private Value none() {
        return many ? Many.NONE : Nothing.ABSENT;
    }

    /** The asked key in the kind of the column, or null if it cannot be one. */
    private static @Nullable Value converted(Value asked, @Nullable Kind kind) {
        if (kind == Kind.TEXT && asked instanceof NumberValue) {
            return TextValue.of(asked.toString());
        }
        if (kind == Kind.NUMBER && asked instanceof TextValue text) {
            return NumberValue.parse(text.text()).orElse(null);
        }
        return asked;
    }

    /** From is inside the range, to is not; an end that is not there is open. */
    private static boolean holds(Row row, Value point) {
        return !point.isNothing()
                && (isOpen(row.from()) || compare(point, row.from()) >= 0)
                && (isOpen(row.to()) || compare(point, row.to()) < 0);
    }

    private static boolean overlap(Row a, Row b) {
        return (isOpen(a.from()) || isOpen(b.to()) || compare(a.from(), b.to()) < 0)
                && (isOpen(b.from()) || isOpen(a.to()) || compare(b.from(), a.to()) < 0);
    }

    private static boolean isOpen(@Nullable Value end) {
        return end == null
                || end.isNothing()
                || end instanceof TextValue text && text.text().isBlank();
    }

    /** Texts of numbers, such as those of a CSV file, are compared as numbers. */
    private static int compare(@Nullable Value a, @Nullable Value b) {
        Value x = number(Objects.requireNonNull(a));
        Value y = number(Objects.requireNonNull(b));
        if (x.kind() != y.kind()) {
            x = TextValue.of(x.toString());
            y = TextValue.of(y.toString());
        }
        return Comparison.compare(x, y);
    }

    private static Value number(Value value) {
        return value instanceof TextValue text
                ? NumberValue.parse(text.text()).<Value>map(n -> n).orElse(value)
                : value;
    }

    private ProblemException twice(Value before, Value now, Value[] keys) {
        Origin first = before instanceof RecordValue record ? record.origin() : null;
        Origin second = now instanceof RecordValue record ? record.origin() : null;
        String lines = first == null || second == null
                ? ""
                : ", on line " + first.line() + " and again on line " + second.line();
        String message =
                ranged ? "Two ranges of this table overlap for the same key" : "A key of this table comes twice";
        Problem problem = span.error(Code.DUPLICATE_KEY, message + lines + ".")
                .withValue(String.join(
                        ", ", Arrays.stream(keys).map(Object::toString).toList()))
                .withHelp("a table with many rows for a key is declared with many");
        return new ProblemException(second == null ? problem : problem.in(second.location(null)));
    }
}
