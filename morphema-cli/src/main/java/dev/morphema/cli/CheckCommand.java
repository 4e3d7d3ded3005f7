package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Mapping;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema check}: looks for mistakes in a mapping without running it. */
final class CheckCommand extends TerminalCommand {
    private final PositionalParamSpec file = mappingFile();
    private final OptionSpec format = value(
            "--format",
            String.class,
            "FORM",
            "How problems are told: text; json, for programs; or sarif, which code hosts and editors show.");
    private final OptionSpec allowRead = allowRead();
    private final OptionSpec strict = flag("--strict", "Warnings count as errors: with any, the exit code is 2.");
    private final OptionSpec unread =
            flag("--unread", "Name the fields of the samples that the mapping does not read.");

    CheckCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec("Look for mistakes in a mapping, without running it.")
                .addPositional(file)
                .addOption(strict)
                .addOption(unread)
                .addOption(format)
                .addOption(allowRead);
    }

    @Override
    public Integer call() {
        Path mapping = file.getValue();
        Checked checked =
                MappingFile.check(morphema(allowRead), mapping, terminal().in());
        List<Problem> problems = checked.problems();
        ProblemReport.Form form = form();
        if (form != ProblemReport.Form.TEXT) {
            return report(problems, form);
        }
        if (checked.mapping().isEmpty()) {
            terminal().problems(!hidesValues()).print(problems);
            return ExitCode.of(problems);
        }
        terminal().problems(!hidesValues()).printEach(problems);
        if (!problems.isEmpty()) {
            terminal().words().println();
        }
        terminal().text().println(summary(mapping, checked.mapping().get(), problems));
        if (isOn(unread)) {
            checked.mapping().get().unread().forEach(this::unread);
        }
        return isOn(strict) && !problems.isEmpty() ? ExitCode.MAPPING : ExitCode.GOOD;
    }

    private ProblemReport.Form form() {
        String word = format.getValue();
        for (ProblemReport.Form form : ProblemReport.Form.values()) {
            if (word == null || form.word().equals(word)) {
                return form;
            }
        }
        throw new ProblemException(
                Problem.error(Code.USAGE, "--format is text, json or sarif.").withValue(word));
    }

    private int report(List<Problem> problems, ProblemReport.Form form) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        new ProblemReport(!hidesValues()).write(problems, form, bytes);
        terminal().text().println(bytes.toString(StandardCharsets.UTF_8));
        int code = ExitCode.of(problems);
        return code == ExitCode.GOOD && isOn(strict) && !problems.isEmpty() ? ExitCode.MAPPING : code;
    }

    private void unread(String source, List<String> paths) {
        String what =
                paths.isEmpty() ? "all fields of its sample are read" : "not read are " + String.join(", ", paths);
        terminal().text().println(source + ": " + what + ".");
    }

    private static String summary(Path file, Mapping mapping, List<Problem> problems) {
        return MappingFile.shown(file) + ": "
                + (problems.isEmpty() ? "good" : "no errors, " + ProblemPrinter.counted(problems))
                + ". Sources: " + names(mapping.sources()) + "; targets: " + names(mapping.targets())
                + (mapping.params().isEmpty() ? "" : "; parameters: " + names(mapping.params())) + ".";
    }

    private static String names(List<String> names) {
        return names.isEmpty() ? "none" : String.join(", ", names);
    }
}
