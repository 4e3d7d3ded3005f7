package dev.morphema;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** The threads of one run that read ahead; none are made before they are needed. Used by the thread of the run. */
final class ReadingThreads implements AutoCloseable {
    private static final int WAIT_SECONDS = 10;

    private final int count;
    private @Nullable ExecutorService service;

    /** @param count of threads beside that of the run; may be 0 */
    ReadingThreads(int count) {
        this.count = count;
    }

    int count() {
        return count;
    }

    ExecutorService service() {
        if (service == null) {
            service = Executors.newFixedThreadPool(count, task -> {
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
