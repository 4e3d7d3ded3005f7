package dev.morphema.cli;

import dev.morphema.RunControl;
import java.io.PrintWriter;
import java.io.Writer;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/**
 * Stops a run when the system asks the program to end (SIGINT, SIGTERM), and waits until it has
 * cleaned up; a run that is putting its outputs into their places finishes that. Java itself then
 * gives the exit codes 130 and 143.
 */
final class Interruption implements AutoCloseable {
    private static final long MOST_SECONDS = 30;

    /** Watches for the end of the program while a run goes on. */
    @FunctionalInterface
    interface Kind {
        Interruption of(RunControl control);
    }

    private final CountDownLatch done = new CountDownLatch(1);
    private final RunControl control;
    private final PrintWriter words;
    private final Thread hook = new Thread(this::stop, "interruption");
    private final boolean watched;

    private Interruption(RunControl control, PrintWriter words, boolean watched) {
        this.control = control;
        this.words = words;
        this.watched = watched;
        if (watched) {
            Runtime.getRuntime().addShutdownHook(hook);
        }
    }

    /** {@return what stops a run when the program is told to end} */
    static Kind ofProgram(PrintWriter words) {
        return control -> new Interruption(control, words, true);
    }

    /** {@return what never stops a run, for a command that is only a part of another program} */
    static Kind none() {
        return control -> new Interruption(control, new PrintWriter(Writer.nullWriter()), false);
    }

    private void stop() {
        control.cancel();
        try {
            if (done.await(MOST_SECONDS, TimeUnit.SECONDS)) {
                words.println("morphema: interrupted; "
                        + (control.isComplete() ? "the outputs are written." : "nothing was written."));
            } else {
                words.println(
                        "morphema: interrupted before the run could end; a folder ending in .morphema-part may be left, which the next run removes.");
            }
            words.flush();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        done.countDown();
        if (watched) {
            try {
                Runtime.getRuntime().removeShutdownHook(hook);
            } catch (IllegalStateException e) {
                // The program is ending: the hook says so.
            }
        }
    }
}
