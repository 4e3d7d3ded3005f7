package dev.morphema.store;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A table: what is found by a key, and all rows. Not changed once it is filled; then safe for use
 * by many threads.
 */
public final class TableIndex implements Lookup {
    private static final Layout ENTRY = Layout.of(List.of(FieldName.of("key"), FieldName.of("value")));

    private final Span span;
    private final boolean many;
    private final boolean ranged;
    private final KeyedRows rows;
    /** The rows of an inline table, which has values by keys. */
    private final List<Value> entries = new ArrayList<>();

    private long withoutKey;
    /** All rows once they were asked for. Threads may each have made it; all are alike. */
    private @Nullable Many rowsOnce;

    /**
     * The kind of each key column, to which an asked key is converted; null while it is not known
     * or mixed.
     */
    private @Nullable Kind @Nullable [] kinds;

    /**
     * @param many whether there may be many rows for a key
     * @param ranged whether each row is also for a range of values
     * @param packs whether each row is a value of its own, so that many may be kept as bytes;
     *     others can have large parts that are the same
     */
    public TableIndex(Span span, boolean many, boolean ranged, boolean packs) {
        this.span = span;
        this.many = many;
        this.ranged = ranged;
        this.rows = ranged ? new RangedRows(many) : many ? new ManyRows(packs) : new SingleRows(packs);
    }

    @Override
    public Many rows() {
        Many known = rowsOnce;
        if (known == null) {
            known = Many.owned(entries.isEmpty() ? rows.all() : entries);
            rowsOnce = known;
        }
        return known;
    }

    /**
     * Adds a row.
     *
     * @param keys its exact keys
     * @param range the two ends of its range, if it has one
     * @throws ProblemException if the key came before and may not
     */
    public void add(Value row, Value[] keys, Value... range) {
        if (!hasKey(keys)) {
            addWithoutKey(row, range);
            return;
        }
        learnKinds(keys);
        KeyCode key = new KeyCode();
        key.set(keys);
        Value before = rows.add(key, row, range);
        if (before != null) {
            throw twice(before, row, keys);
        }
    }

    private static boolean hasKey(Value[] keys) {
        for (Value key : keys) {
            if (key.isMissing()) {
                return false;
            }
        }
        return true;
    }

    /**
     * A row without key is one of all rows, but is not found: it stands under a key that nobody
     * asks for.
     */
    private void addWithoutKey(Value row, Value... range) {
        KeyCode key = new KeyCode();
        key.set(ListValue.of(List.of(NumberValue.of(withoutKey++))));
        rows.add(key, row, range);
    }

    /** {@return a warning of the rows that have no key, or null if all have one} */
    @Nullable
    public Problem withoutKey() {
        return withoutKey == 0
                ? null
                : span.warning(
                                Code.MISSING_KEY,
                                (withoutKey == 1 ? "1 row" : withoutKey + " rows")
                                        + " of this table cannot be looked up, as a key is absent or null.")
                        .withHelp("where exists(…) in a table over a loop leaves such rows out");
    }

    /**
     * Adds an entry of an inline table: a row of it has a key and a value, a look-up gives the
     * value alone.
     */
    public void addEntry(Value value, Value[] key) {
        add(value, key);
        RecordBuilder row = RecordValue.builder(ENTRY, null);
        row.set(0, key[0]);
        row.set(1, value);
        entries.add(row.build());
    }

    private void learnKinds(Value[] keys) {
        if (kinds == null) {
            kinds = Arrays.stream(keys).map(Value::kind).toArray(Kind[]::new);
            return;
        }
        for (int i = 0; i < keys.length; i++) {
            if (kinds[i] != keys[i].kind()) {
                kinds[i] = null;
            }
        }
    }

    @Override
    public Value find(Value[] asked) {
        Value[] keys = new Value[ranged ? asked.length - 1 : asked.length];
        for (int i = 0; i < keys.length; i++) {
            Value converted = converted(asked[i], kinds == null ? null : kinds[i]);
            if (converted == null || converted.isMissing()) {
                return many ? Many.NONE : Missing.ABSENT;
            }
            keys[i] = converted;
        }
        KeyCode key = new KeyCode();
        key.set(keys);
        return rows.find(key, ranged ? asked[keys.length] : Missing.ABSENT);
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
