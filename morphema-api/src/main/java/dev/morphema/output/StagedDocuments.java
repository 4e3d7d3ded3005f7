package dev.morphema.output;

import dev.morphema.engine.Writers;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Documents that wait in memory, and are handed over in the order they were made. */
public final class StagedDocuments extends StagedOutput {
    /** Takes documents in the end. */
    @FunctionalInterface
    public interface Taker {
        /** Takes a document, which is the taker's to keep. */
        void take(String name, byte[] document) throws IOException;
    }

    private final Taker taker;
    private final DocumentNames names = new DocumentNames();
    private final Map<String, ByteArrayOutputStream> documents = new LinkedHashMap<>();

    StagedDocuments(Taker taker) {
        this.taker = taker;
    }

    @Override
    public boolean isOfManyDocuments() {
        return true;
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        names.take(Objects.requireNonNull(document));
        return documents.computeIfAbsent(document.name(), name -> new ByteArrayOutputStream());
    }

    @Override
    void close() {
        // nothing is open
    }

    @Override
    void deliver() throws IOException {
        for (Map.Entry<String, ByteArrayOutputStream> document : documents.entrySet()) {
            taker.take(document.getKey(), document.getValue().toByteArray());
        }
    }

    @Override
    void discard() {
        documents.clear();
    }
}
