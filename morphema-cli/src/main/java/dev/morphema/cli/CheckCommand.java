package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Morphema;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** {@code morphema check}: looks for mistakes in a mapping without running it. */
@Command(
        name = "check",
        description = "Look for mistakes in a mapping, without running it.",
        mixinStandardHelpOptions = true)
final class CheckCommand extends TerminalCommand {
    @Parameters(paramLabel = "MAPPING", description = "The file with the mapping.")
    private Path mapping = Path.of("");

    CheckCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    public Integer call() {
        Checked checked = Morphema.standard().check(mapping);
        new ProblemPrinter(terminal().words(), !common().hideValues()).print(checked.problems());
        checked.mapping()
                .ifPresent(sound -> terminal()
                        .text()
                        .println(mapping + ": good. Sources: " + names(sound.sources()) + "; targets: "
                                + names(sound.targets())
                                + (sound.params().isEmpty() ? "" : "; parameters: " + names(sound.params())) + "."));
        return ExitCode.of(checked.problems());
    }

    private static String names(List<String> names) {
        return names.isEmpty() ? "none" : String.join(", ", names);
    }
}
