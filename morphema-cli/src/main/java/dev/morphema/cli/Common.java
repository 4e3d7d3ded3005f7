package dev.morphema.cli;

import picocli.CommandLine.Option;

/** The options that all commands take. */
final class Common {
    @Option(names = "--hide-values", description = "Leave data out of messages about problems.")
    private boolean hideValues;

    @Option(names = "--debug", description = "Show where in the program a failure arose.")
    private boolean debug;

    boolean hideValues() {
        return hideValues;
    }

    boolean debug() {
        return debug;
    }
}
