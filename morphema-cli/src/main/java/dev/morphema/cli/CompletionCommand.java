package dev.morphema.cli;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;

/**
 * {@code morphema completion}: writes the script by which bash and zsh complete the command line.
 */
final class CompletionCommand extends TerminalCommand {
    private @Nullable CommandSpec spec;

    CompletionCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        CommandSpec made = spec("Write the script by which bash and zsh complete the command line.");
        made.usageMessage().footerHeading("%nExample%n").footer("  source <(morphema completion)");
        spec = made;
        return made;
    }

    @Override
    public Integer call() {
        CommandLine whole = Objects.requireNonNull(spec).root().commandLine();
        terminal().text().print(AutoComplete.bash("morphema", whole));
        terminal().text().flush();
        return ExitCode.GOOD;
    }
}
