package dev.morphema;

import dev.morphema.engine.Run;
import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** A message that waits in memory, where it stays. */
final class StagedMessage extends StagedOutput {
    private final ByteArrayOutputStream message;

    /** @param size how many bytes there may be, about */
    StagedMessage(int size) {
        message = new ByteArrayOutputStream(size);
    }

    /** {@return the message, after a run that succeeded} */
    byte[] message() {
        return message.toByteArray();
    }

    @Override
    OutputStream bytes(Run.@Nullable Document document) {
        return message;
    }

    @Override
    void close() {
        // nothing is open
    }

    @Override
    void commit() {
        // it is where it is to be
    }

    @Override
    void discard() {
        message.reset();
    }
}
