package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Morphema;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema check}: looks for mistakes in a mapping without running it. */
final class CheckCommand extends TerminalCommand {
    private final PositionalParamSpec file = mappingFile();

    CheckCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec("Look for mistakes in a mapping, without running it.").addPositional(file);
    }

    @Override
    public Integer call() {
        Path mapping = file.getValue();
        Checked checked = Morphema.standard().check(mapping);
        new ProblemPrinter(terminal().words(), !hidesValues()).print(checked.problems());
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
