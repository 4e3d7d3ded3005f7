package dev.morphema.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Mixin;

/** A command with the options that all commands take; gives its exit code. */
abstract class TerminalCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Mixin
    private Common common = new Common();

    TerminalCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    final Terminal terminal() {
        return terminal;
    }

    final Common common() {
        return common;
    }
}
