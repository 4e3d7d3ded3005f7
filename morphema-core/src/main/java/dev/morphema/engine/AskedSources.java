package dev.morphema.engine;

import dev.morphema.format.KeyedReader;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The sources that are asked for records, opened when one is first asked. Not thread-safe. */
final class AskedSources implements AutoCloseable {
    private final Readers readers;
    private final RunCaches caches;
    private final Map<Integer, KeyedReader> open = new LinkedHashMap<>();

    AskedSources(Readers readers, RunCaches caches) {
        this.readers = readers;
        this.caches = caches;
    }

    /** {@return the records of a source that have a key} */
    List<Value> find(int source, List<Value> key) throws IOException {
        KeyedReader reader = open.get(source);
        if (reader == null) {
            reader = readers.openKeyed(source, caches.projection(source));
            open.put(source, reader);
        }
        return reader.find(key);
    }

    @Override
    public void close() throws IOException {
        for (KeyedReader reader : open.values()) {
            reader.close();
        }
    }
}
