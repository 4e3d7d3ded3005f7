package dev.morphema;

import dev.morphema.engine.Run;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Documents that wait in memory, and are handed over in the order they were made. */
final class StagedDocuments extends StagedOutput {
    private final Outputs.Documents taker;
    private final DocumentNames names = new DocumentNames();
    private final Map<String, ByteArrayOutputStream> documents = new LinkedHashMap<>();

    StagedDocuments(Outputs.Documents taker) {
        this.taker = taker;
    }

    @Override
    boolean isOfManyDocuments() {
        return true;
    }

    @Override
    OutputStream bytes(Run.@Nullable Document document) {
        names.take(Objects.requireNonNull(document));
        return documents.computeIfAbsent(document.name(), name -> new ByteArrayOutputStream());
    }

    @Override
    void close() {
        // nothing is open
    }

    @Override
    void commit() throws IOException {
        for (Map.Entry<String, ByteArrayOutputStream> document : documents.entrySet()) {
            taker.take(document.getKey(), document.getValue().toByteArray());
        }
    }

    @Override
    void discard() {
        documents.clear();
    }
}
