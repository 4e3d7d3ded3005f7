package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** {@code morphema plan}: shows how a mapping will run. */
@Command(
        name = "plan",
        description = {
            "Show how a mapping will run.",
            "For each source whether its records are read one at a time or kept, and why; which fields are read; for each target the stages of its loop, and what is held in memory."
        },
        mixinStandardHelpOptions = true)
final class PlanCommand extends TerminalCommand {
    @Parameters(paramLabel = "MAPPING", description = "The file with the mapping.")
    private Path file = Path.of("");

    PlanCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    public Integer call() {
        Checked checked = Morphema.standard().check(file);
        new ProblemPrinter(terminal().words(), !common().hideValues()).print(checked.problems());
        Mapping mapping = checked.mapping().orElse(null);
        if (mapping == null) {
            return ExitCode.of(checked.problems());
        }
        terminal().text().print(mapping.plan());
        return ExitCode.GOOD;
    }
}
