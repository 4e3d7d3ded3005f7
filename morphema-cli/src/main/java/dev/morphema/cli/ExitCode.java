package dev.morphema.cli;

import dev.morphema.problem.Problem;
import java.util.List;

/** The exit codes of the command. */
final class ExitCode {
    static final int GOOD = 0;
    static final int DATA = 1;
    static final int MAPPING = 2;
    static final int USAGE = 3;
    static final int FILE = 4;
    /** Ended by SIGINT, as shells have it. */
    static final int INTERRUPTED = 130;
    /** A fault of the program itself. */
    static final int FAULT = 70;

    private ExitCode() {}

    /** {@return the code for what went wrong; the first error decides} */
    static int of(List<Problem> problems) {
        return problems.stream()
                .filter(Problem::isError)
                .findFirst()
                .map(problem -> switch (problem.code().area()) {
                    case MAPPING -> MAPPING;
                    case DATA -> DATA;
                    case USAGE -> USAGE;
                    case FILE -> FILE;
                })
                .orElse(GOOD);
    }
}
