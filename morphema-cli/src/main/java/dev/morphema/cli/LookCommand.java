package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Looked;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.RunControl;
import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.schemas.LearnedSchemas;
import dev.morphema.schemas.LearnedXsd;
import dev.morphema.schemas.Validation;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema look}: shows what is in files. */
final class LookCommand extends TerminalCommand {
    private final PositionalParamSpec words =
            files("FILE", "A file, or a pattern in quotes. Several are looked at as one.");
    private final OptionSpec records = value("--records", long.class, "COUNT", "Stop after so many records.");
    private final OptionSpec values = value(
            "--values",
            String.class,
            "EXPRESSION",
            "Show the values of an expression of the language instead, in which \"it\" is what is in the file: it.calls.ship",
            "nth(it.calls, 2), or: c for c in it.calls where c.kg > 100.");

    private final OptionSpec as = value(
            "--as",
            String.class,
            "SCHEMA",
            "Write what is shown as a schema instead, by which the files are valid: json-schema or xsd.");

    LookCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Show what is in files.",
                        "The format and its options, as a mapping declares them; all fields, with their types, how often they are there, and values; and which record repeats.")
                .addPositional(words)
                .addOption(records)
                .addOption(values)
                .addOption(as);
    }

    @Override
    public Integer call() {
        List<Path> files = named(words);
        Long most = records.getValue();
        if (most != null && most < 1) {
            throw new ProblemException(Problem.error(Code.USAGE, "--records takes how many, from 1 on.")
                    .withValue(most.toString()));
        }
        String expression = values.getValue();
        long toFind = expression == null ? Long.MAX_VALUE : 1;
        Looked looked = looked(files, most == null ? toFind : most);
        if (expression != null) {
            return show(looked, files, expression);
        }
        if (as.getValue() != null) {
            return schema(looked, files, as.getValue());
        }
        new ShapePrinter(terminal().text(), terminal().look(), !hidesValues()).print(looked, name(files));
        return ExitCode.GOOD;
    }

    private Looked looked(List<Path> files, long most) {
        RunControl control = new RunControl();
        try (Progress progress = Progress.of(control, terminal())) {
            return Morphema.standard().look(files, most, control);
        }
    }

    private int schema(Looked looked, List<Path> files, String kind) {
        boolean xsd = kind.equals("xsd");
        if (!xsd && !kind.equals("json-schema")) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "--as is json-schema or xsd.").withValue(kind));
        }
        if (xsd != looked.format().equals("xml")) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Of " + looked.format() + " there is no schema of this kind.")
                            .withHelp(xsd ? "--as json-schema" : "--as xsd"));
        }
        terminal()
                .text()
                .print(
                        xsd
                                ? xsd(looked, files)
                                : LearnedSchemas.json(
                                        looked.shape(),
                                        looked.isSequence() && looked.format().equals("json")));
        return ExitCode.GOOD;
    }

    /** Where elements come in more than one order, any order is as good. */
    private static String xsd(Looked looked, List<Path> files) {
        String ordered = LearnedXsd.write(looked.shape(), true);
        for (Path file : files) {
            if (!isValid(file, ordered)) {
                return LearnedXsd.write(looked.shape(), false);
            }
        }
        return ordered;
    }

    private static boolean isValid(Path file, String schema) {
        Input learned = Input.of("learned.xsd", schema.getBytes(StandardCharsets.UTF_8));
        try {
            return new Validation(1)
                    .check(Morphema.standard().input(file), "xml", learned.name(), path -> learned)
                    .isEmpty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Shows the values of an expression, which is checked against the files themselves. */
    private int show(Looked looked, List<Path> files, String expression) {
        Morphema.Builder morphema = Morphema.builder();
        files.forEach(file -> morphema.allowRead(file.toAbsolutePath().getParent()));
        String text = "morphema 1\nsource it: " + looked.sampledSource() + "\ntarget values: json { for value in (\n"
                + expression + "\n) => value }\n";
        Checked checked = morphema.build().check("--values", text, Path.of(""));
        terminal()
                .problems(!hidesValues())
                .print(checked.problems().stream()
                        .map(problem -> withWayIn(problem, looked, expression))
                        .toList());
        Mapping mapping = checked.mapping().orElse(null);
        if (mapping == null || !checked.problems().isEmpty()) {
            return ExitCode.DATA;
        }
        ShownOutput shown = new ShownOutput(terminal(), "", "json");
        Inputs inputs = files.size() > 1 ? Inputs.NONE.andFiles("it", files) : Inputs.file("it", files.get(0));
        mapping.run(inputs, Outputs.stream("values", shown.stream()));
        return ExitCode.GOOD;
    }

    /** {@return a problem with the proposal to begin with what is in the file, if that leads on} */
    private static Problem withWayIn(Problem problem, Looked looked, String expression) {
        boolean field = problem.code() == Code.UNKNOWN_NAME
                && looked.shape().names().stream().anyMatch(name -> expression.startsWith(name.toString()));
        return field ? problem.withHelp("what is in the file is called it: it." + expression) : problem;
    }

    /** {@return what a source of these files can be called} */
    private static String name(List<Path> files) {
        String name = files.get(0).getFileName().toString().replaceAll("\\..*", "");
        return name.matches("[a-zA-Z][a-zA-Z0-9_]*") ? name : "it";
    }
}
