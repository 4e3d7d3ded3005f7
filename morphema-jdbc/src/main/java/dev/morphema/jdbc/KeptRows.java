package dev.morphema.jdbc;

import dev.morphema.format.KeyedReader;
import dev.morphema.format.RecordReader;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Rows that somebody has kept in a file, found by a key as a database would. Immutable. */
final class KeptRows implements KeyedReader {
    private final Map<List<String>, List<Value>> byKey;

    private KeptRows(Map<List<String>, List<Value>> byKey) {
        this.byKey = byKey;
    }

    /** @param keys the fields that are the key of a look-up */
    static KeptRows of(RecordReader rows, List<String> keys) throws IOException {
        List<FieldName> names = keys.stream().map(FieldName::of).toList();
        Map<List<String>, List<Value>> byKey = new HashMap<>();
        for (Value row = rows.next(); row != null; row = rows.next()) {
            if (RecordValue.detached(row) instanceof RecordValue record) {
                List<String> key =
                        names.stream().map(name -> record.get(name).toString()).toList();
                byKey.computeIfAbsent(key, k -> new ArrayList<>()).add(record);
            }
        }
        return new KeptRows(byKey);
    }

    @Override
    public List<Value> find(List<Value> key) {
        return byKey.getOrDefault(key.stream().map(Value::toString).toList(), List.of());
    }

    @Override
    public void close() {
        // nothing is held
    }
}
