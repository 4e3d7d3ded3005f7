package dev.morphema;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** The threads of one run that read ahead; none is made before it is needed. Used by the thread of the run. */
final class ReadingThreads implements AutoCloseable {
    private static final int WAIT_SECONDS = 10;

    private final int count;
    private @Nullable ExecutorService service;

    /** @param count how many inputs of one source may be read at a time; may be 0, then none is read ahead */
    ReadingThreads(int count) {
        this.count = count;
    }

    /** {@return how many inputs of one source may be read at a time} */
    int count() {
        return count;
    }

    /** {@return what runs a task at once: a reader that waits for its records to be taken must not keep another from reading} */
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
