package dev.morphema.output;

import dev.morphema.engine.Writers;
import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** What is copied to a stream in the end. */
final class StagedStream extends StagedOutput {
    private final Spool spool = new Spool();
    private final OutputStream stream;
    private final boolean ours;

    /** @param ours whether the stream is to be closed */
    StagedStream(OutputStream stream, boolean ours) {
        this.stream = stream;
        this.ours = ours;
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        return spool;
    }

    @Override
    void close() {
        // the spool is read from the beginning
    }

    @Override
    void deliver() throws IOException {
        spool.open().transferTo(stream);
        stream.flush();
    }

    @Override
    void discard() {
        spool.delete();
        try {
            if (ours) {
                stream.close();
            }
        } catch (IOException e) {
            // the failure that led here is the one to be told
        }
    }
}
