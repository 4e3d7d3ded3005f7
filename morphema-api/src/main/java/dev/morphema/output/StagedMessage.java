package dev.morphema.output;

import dev.morphema.engine.Writers;
import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** A message that waits in memory, where it stays. */
public final class StagedMessage extends StagedOutput {
    private final ByteArrayOutputStream message;

    /** @param size how many bytes there may be, about */
    public StagedMessage(int size) {
        message = new ByteArrayOutputStream(size);
    }

    /** {@return the message, after a run that succeeded} */
    public byte[] message() {
        return message.toByteArray();
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        return message;
    }

    @Override
    void close() {
        // nothing is open
    }

    @Override
    void discard() {
        // it is of no use to anybody if the run has failed
    }
}
