package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Mapping;
import java.nio.file.Path;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema plan}: shows how a mapping will run. */
final class PlanCommand extends TerminalCommand {
    private final PositionalParamSpec file = mappingFile();
    private final OptionSpec allowRead = allowRead();

    PlanCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Show how a mapping will run.",
                        "For each source whether its records are read one at a time or kept, and why; which fields are read; for each target the stages of its loop, and what is held in memory.")
                .addPositional(file)
                .addOption(allowRead);
    }

    @Override
    public Integer call() {
        Checked checked = MappingFile.check(
                morphema(allowRead), file.<Path>getValue(), terminal().in());
        terminal().problems(!hidesValues()).print(checked.problems());
        Mapping mapping = checked.mapping().orElse(null);
        if (mapping == null) {
            return ExitCode.of(checked.problems());
        }
        terminal().text().print(mapping.plan());
        return ExitCode.GOOD;
    }
}
