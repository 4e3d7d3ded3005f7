package dev.morphema.cli;

import dev.morphema.RunControl;
import java.io.PrintWriter;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Shows on a terminal how far a run is that takes longer than a second: one line, written over and
 * over.
 */
final class Progress implements AutoCloseable {
    private static final long FIRST_MILLIS = 1_000;
    private static final long EACH_MILLIS = 250;
    private static final double NANOS = 1e9;
    private static final long MEGABYTE = 1_000_000;
    private static final String BACK = "\r\u001B[K";

    private final RunControl control;
    private final PrintWriter out;
    private final long start = System.nanoTime();
    private final @Nullable ScheduledExecutorService clock;
    private boolean shown;

    private Progress(RunControl control, PrintWriter out, boolean live) {
        this.control = control;
        this.out = out;
        this.clock = live ? Executors.newSingleThreadScheduledExecutor(Progress::thread) : null;
        if (clock != null) {
            clock.scheduleAtFixedRate(this::show, FIRST_MILLIS, EACH_MILLIS, TimeUnit.MILLISECONDS);
        }
    }

    private static Thread thread(Runnable work) {
        Thread thread = new Thread(work, "progress");
        thread.setDaemon(true);
        return thread;
    }

    /**
     * {@return what shows the progress of a run until it is closed; nothing where there is no
     * terminal}
     */
    static Progress of(RunControl control, Terminal terminal) {
        return new Progress(control, terminal.words(), terminal.look().live());
    }

    private synchronized void show() {
        shown = true;
        out.print(BACK
                + line(control.bytesRead(), control.bytesInAll(), control.recordsRead(), System.nanoTime() - start));
        out.flush();
    }

    /**
     * {@return the line that is shown}
     *
     * @param bytes read so far
     * @param all bytes that there are, or -1 if that is not known
     * @param nanos since the start
     */
    static String line(long bytes, long all, long records, long nanos) {
        double seconds = nanos / NANOS;
        StringBuilder line = new StringBuilder();
        boolean known = all > 0 && bytes <= all;
        if (known) {
            line.append(bytes * 100 / all).append(" %, ");
        }
        line.append(megabytes(bytes))
                .append(known ? " of " + megabytes(all) : "")
                .append(" MB");
        if (records > 0) {
            line.append(", ").append(Account.grouped(records)).append(" records, ");
            line.append(Account.grouped(Math.round(records / seconds))).append(" a second");
        }
        if (known && bytes > 0) {
            long left = Math.round(seconds * (all - bytes) / bytes);
            line.append(", ")
                    .append(left < 120 ? left + " s" : left / 60 + " min")
                    .append(" left");
        }
        return line.toString();
    }

    private static String megabytes(long bytes) {
        return Account.grouped(bytes / MEGABYTE).toString();
    }

    @Override
    public synchronized void close() {
        if (clock != null) {
            clock.shutdownNow();
        }
        if (shown) {
            out.print(BACK);
            out.flush();
        }
    }
}
