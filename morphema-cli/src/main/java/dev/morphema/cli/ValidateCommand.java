package dev.morphema.cli;

import dev.morphema.Morphema;
import dev.morphema.output.FileFaults;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.schemas.Validation;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** Looks whether documents are as a schema says. */
final class ValidateCommand extends TerminalCommand {
    /** Of more, the first tell what to do. */
    static final int MOST_PROBLEMS = 100;

    private final PositionalParamSpec documents =
            files("FILE", "A document in XML, JSON or JSON Lines, or a pattern in quotes.");
    private final OptionSpec schema = OptionSpec.builder("--schema")
            .type(String.class)
            .arity("1")
            .required(true)
            .paramLabel("SCHEMA")
            .description("An XML Schema, JSON Schema or OpenAPI description, perhaps with a part of it behind #.")
            .build();

    ValidateCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec("Look whether documents are as a schema says.")
                .addPositional(documents)
                .addOption(schema);
    }

    @Override
    public Integer call() {
        int code = ExitCode.GOOD;
        for (Path file : named(documents)) {
            code = Math.max(code, validate(file));
        }
        return code;
    }

    private int validate(Path file) {
        List<Problem> problems;
        try {
            Morphema morphema = Morphema.standard();
            problems = new Validation(MOST_PROBLEMS)
                    .check(
                            morphema.input(file),
                            format(file),
                            schema.getValue(),
                            path -> morphema.input(Path.of(path)));
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_READABLE, "A file cannot be read: " + FileFaults.reason(e) + "."), e);
        }
        PrintWriter text = terminal().text();
        if (problems.isEmpty()) {
            text.println(file + ": valid");
            return ExitCode.GOOD;
        }
        terminal().problems(!hidesValues()).printEach(problems);
        terminal().words().println();
        String more = problems.size() == MOST_PROBLEMS ? "at least " : "";
        text.println(file + ": not valid, " + more + ProblemPrinter.counted(problems));
        return ExitCode.DATA;
    }

    private static String format(Path file) {
        String name = file.toString().toLowerCase(Locale.ROOT).replaceAll("\\.gz$", "");
        if (name.endsWith(".xml") || name.endsWith(".json") || name.endsWith(".jsonl")) {
            return name.substring(name.lastIndexOf('.') + 1);
        }
        return Morphema.standard().look(List.of(file), 1).format();
    }
}
