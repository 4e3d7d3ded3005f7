package dev.morphema.jdbc;

import dev.morphema.format.KeyedReader;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The rows of a query that is prepared once, and run for each key. Not thread-safe. */
final class AskedRows implements KeyedReader {
    private final RowReader rows;
    private final List<String> keys;
    /** The kind that the database wants of each key; null where it does not say. */
    private final List<@Nullable Kind> kinds = new ArrayList<>();

    private final Map<String, Value> parameters;

    private AskedRows(RowReader rows, List<String> keys, Map<String, Value> parameters) {
        keys.forEach(key -> kinds.add(rows.kindOf(key)));
        this.rows = rows;
        this.keys = keys;
        this.parameters = parameters;
    }

    /** @param keys the parameters of the query that are the key of a look-up */
    static AskedRows open(
            Database database, NamedQuery query, List<String> keys, Projection projection, Options options, int fetch)
            throws IOException {
        RowReader rows = RowReader.prepared(database, query, projection, options, fetch);
        return new AskedRows(rows, keys, options.parameters());
    }

    @Override
    public List<Value> find(List<Value> key) throws IOException {
        Map<String, Value> all = new HashMap<>(parameters);
        for (int i = 0; i < keys.size(); i++) {
            Value asked = asked(key.get(i), kinds.get(i));
            if (asked == null) {
                return List.of();
            }
            all.put(keys.get(i), asked);
        }
        rows.ask(all);
        List<Value> found = new ArrayList<>();
        for (Value row = rows.next(); row != null; row = rows.next()) {
            found.add(row);
        }
        return found;
    }

    /**
     * A key in the kind of the column, which may be a text where it comes from; null if it cannot
     * be one.
     */
    private static @Nullable Value asked(Value key, @Nullable Kind kind) {
        if (kind == Kind.NUMBER && key instanceof TextValue text) {
            return NumberValue.parse(text.text()).orElse(null);
        }
        return kind == Kind.TEXT && key instanceof NumberValue ? TextValue.of(key.toString()) : key;
    }

    @Override
    public void close() {
        rows.close();
    }
}
