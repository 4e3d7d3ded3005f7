package dev.morphema;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * The threads of one run that read ahead; none is made before it is needed. Used by the thread of
 * the run.
 */
final class ReadingThreads implements AutoCloseable {
    private static final int WAIT_SECONDS = 10;

    /** Below so many bytes another thread gains nothing. */
    private static final long LARGE = 4 << 20;

    /**
     * Below so many bytes one input is gone through sooner than Java has compiled what goes through
     * it: then that has the other processor, and to give it to a reader as well costs more than it
     * gains.
     */
    private static final long VERY_LARGE = 256 << 20;

    private final int count;
    private final boolean asked;
    private @Nullable ExecutorService service;

    /**
     * @param count how many inputs of one source may be read at a time; may be 0, then none is read
     *     ahead
     * @param asked whether somebody asked for that many
     */
    ReadingThreads(int count, boolean asked) {
        this.count = count;
        this.asked = asked;
    }

    /**
     * {@return whether inputs are to be read ahead}
     *
     * @param bytes of all of them, or below 0 if that is not known
     * @param many whether there can be more than one, which are read side by side then
     */
    boolean areWorthwhile(long bytes, boolean many) {
        return count > 0 && bytes >= (asked || many ? LARGE : VERY_LARGE);
    }

    /** {@return how many inputs of one source may be read at a time} */
    int count() {
        return count;
    }

    /**
     * {@return what runs a task at once: a reader that waits for its records to be taken must not
     * keep another from reading}
     */
    ExecutorService service() {
        if (service == null) {
            service = Executors.newCachedThreadPool(task -> {
                Thread thread = new Thread(task, "morphema reading");
                thread.setDaemon(true);
                return thread;
            });
        }
        return service;
    }

    /** Ends all threads, and waits until none of them has an input open any more. */
    @Override
    public void close() {
        if (service == null) {
            return;
        }
        service.shutdownNow();
        try {
            service.awaitTermination(WAIT_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
