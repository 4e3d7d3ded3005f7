package dev.morphema.http;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;

/**
 * Ends the reading of a stream that does not go on: the time that is set for an answer is over when
 * its first bytes have come. Used by one reader.
 */
final class Stall implements Closeable {
    private static final ScheduledExecutorService TIMER = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "morphema-stalls");
        thread.setDaemon(true);
        return thread;
    });

    private final InputStream stream;
    private final long nanos;
    private volatile boolean stalled;
    private volatile long progressAt = System.nanoTime();
    private volatile ScheduledFuture<?> look;

    private Stall(InputStream stream, Duration most) {
        this.stream = stream;
        this.nanos = most.toNanos();
        this.look = lookIn(nanos);
    }

    /** {@return what closes a stream that gives nothing for a time} */
    static Stall of(InputStream stream, Duration most) {
        return new Stall(stream, most);
    }

    private ScheduledFuture<?> lookIn(long delay) {
        return TIMER.schedule(this::stop, delay, TimeUnit.NANOSECONDS);
    }

    private void stop() {
        long left = nanos - (System.nanoTime() - progressAt);
        if (left > 0) {
            look = lookIn(left);
            return;
        }
        stalled = true;
        try {
            stream.close();
        } catch (IOException e) {
            // Who reads it is told that it has ended.
        }
    }

    /** Something was read. */
    void progress() {
        progressAt = System.nanoTime();
    }

    /** {@return whether the stream was ended} */
    boolean isStalled() {
        return stalled;
    }

    @Override
    public void close() {
        look.cancel(false);
    }
}
