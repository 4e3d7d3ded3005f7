package dev.morphema.cli;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import java.io.PrintWriter;
import java.time.Duration;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import org.jspecify.annotations.Nullable;

/**
 * Runs something again and again, with a line for each round. A round that fails does not end it.
 */
final class Rounds {
    /** One round. */
    @FunctionalInterface
    interface Round {
        /**
         * {@return what came of it, in a few words}
         *
         * @throws ProblemException if it failed
         */
        String run();
    }

    private final Terminal terminal;
    private final boolean values;
    private final boolean tells;
    private final Duration pause;
    private final @Nullable Integer most;

    /**
     * @param values whether data may be shown
     * @param tells whether there is a line for rounds that did not fail, too
     * @param pause between the begins of two rounds
     * @param most how many rounds there are, or null if they go on
     */
    Rounds(Terminal terminal, boolean values, boolean tells, Duration pause, @Nullable Integer most) {
        this.terminal = terminal;
        this.values = values;
        this.tells = tells;
        this.pause = pause;
        this.most = most;
    }

    /** {@return the exit code of the last round} */
    int run(Round round) {
        int code = ExitCode.GOOD;
        for (int number = 1; ; number++) {
            long begun = System.nanoTime();
            try {
                String result = round.run();
                if (tells) {
                    log(result);
                }
                code = ExitCode.GOOD;
            } catch (ProblemException e) {
                if (e.problem().code() == Code.CANCELLED) {
                    throw e;
                }
                terminal.problems(values).print(e.problems());
                log("failed, nothing was written");
                code = ExitCode.of(e.problems());
            }
            if (most != null && number >= most || !waited(begun)) {
                return code;
            }
        }
    }

    private boolean waited(long begun) {
        try {
            Thread.sleep(Math.max(0, pause.toMillis() - (System.nanoTime() - begun) / 1_000_000));
            return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private void log(String line) {
        PrintWriter words = terminal.words();
        words.println(
                LocalTime.now().truncatedTo(ChronoUnit.SECONDS).format(DateTimeFormatter.ISO_LOCAL_TIME) + " " + line);
        words.flush();
    }
}
