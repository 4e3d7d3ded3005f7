package dev.morphema;

import dev.morphema.engine.RunWatch;
import dev.morphema.format.Input;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Follows one run from another thread, and can stop it. Safe for use by many threads.
 *
 * <pre>{@code
 * RunControl control = new RunControl();
 * new Thread(() -> mapping.run(inputs, outputs, RunOptions.DEFAULT.control(control))).start();
 * control.bytesRead();
 * control.cancel();
 * }</pre>
 */
public final class RunControl {
    private final AtomicLong bytes = new AtomicLong();
    private final AtomicLong total = new AtomicLong();
    private final AtomicLong records = new AtomicLong();
    private volatile boolean unknown;
    private volatile boolean cancelled;
    private volatile boolean complete;

    /**
     * Stops the run before its next records: it fails with {@code cancelled}, and no output is
     * touched. A run whose outputs are being put into their places already ends well.
     */
    public void cancel() {
        cancelled = true;
    }

    /** {@return whether the run was told to stop} */
    public boolean isCancelled() {
        return cancelled;
    }

    /** {@return whether all outputs were put into their places} */
    public boolean isComplete() {
        return complete;
    }

    void complete() {
        complete = true;
    }

    /**
     * {@return how many bytes of the inputs were read so far, decompressed}; more than there are if
     * some are read twice
     */
    public long bytesRead() {
        return bytes.get();
    }

    /** {@return how many bytes there are to read, or -1 if that is not known} */
    public long bytesInAll() {
        return unknown ? -1 : total.get();
    }

    /**
     * {@return how many records were read so far; a document that is read as a whole counts none}
     */
    public long recordsRead() {
        return records.get();
    }

    RunWatch watch() {
        return new RunWatch() {
            @Override
            public boolean isCancelled() {
                return cancelled;
            }

            @Override
            public void read(long more) {
                records.addAndGet(more);
            }
        };
    }

    /** An input of so many bytes, or of {@link Input#UNKNOWN_SIZE}, will be read. */
    void expect(long size) {
        unknown |= size == Input.UNKNOWN_SIZE;
        total.addAndGet(Math.max(size, 0));
    }

    /** So many bytes more were read. */
    void readBytes(long more) {
        bytes.addAndGet(more);
    }
}
