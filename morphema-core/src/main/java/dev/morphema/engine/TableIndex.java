package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
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
import org.jspecify.annotations.Nullable;

/** The rows of a table by their keys. Not changed once it is filled; then safe for use by many threads. */
final class TableIndex {
    /** So few rows are found sooner as they are. */
    private static final int MOST_UNPACKED = 1 << 10;

    private final Span span;
    private final boolean many;
    private final boolean ranged;
    /** The keys, but for those of packed rows. */
    private final KeyTable numbers = new KeyTable(0);
    /** The first rows by the numbers of their keys, in a table in which a key has one row. */
    private final List<Value> single = new ArrayList<>();
    /** Further such rows. */
    private final PackedRows packed = new PackedRows();
    /** The rows of each key, in a table with ranges. */
    private final List<RangedRows> inRanges = new ArrayList<>();
    /** The rows of each key, in other tables. */
    private final List<List<Value>> several = new ArrayList<>();
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
        Value before = many || ranged ? addToSeveral(row, key, range) : addSingle(row, key);
        if (before != null) {
            throw twice(before, row, keys);
        }
    }

    /** Adds the only row of its key; {@return the one that there is already} */
    private @Nullable Value addSingle(Value row, KeyCode key) {
        Value before = single(key);
        if (before == null && single.size() < MOST_UNPACKED) {
            numbers.add(key);
            single.add(row);
        } else if (before == null) {
            packed.add(key, row);
        }
        return before;
    }

    /** {@return the row of a key that has at most one, or null} */
    private @Nullable Value single(KeyCode key) {
        int number = numbers.find(key);
        return number < 0 ? packed.find(key) : single.get(number);
    }

    /** Adds a row that may be one of several of its key; {@return one that there may not be beside it} */
    private @Nullable Value addToSeveral(Value row, KeyCode key, Value @Nullable [] range) {
        int number = numbers.find(key);
        if (number < 0) {
            number = numbers.add(key);
            if (ranged) {
                inRanges.add(new RangedRows(many));
            } else {
                several.add(new ArrayList<>(1));
            }
        }
        all.add(row);
        if (range != null) {
            return inRanges.get(number).add(row, range[0], range[1]);
        }
        several.get(number).add(row);
        return null;
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
        List<Value> found = ranged ? inRanges.get(number).find(asked[exact]) : several.get(number);
        if (many) {
            return Many.of(found);
        }
        return found.isEmpty() ? Nothing.ABSENT : found.get(0);
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
