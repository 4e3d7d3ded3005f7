package dev.morphema.cli;

import dev.morphema.FormattedMapping;
import dev.morphema.Morphema;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema format}: lays mappings out in the one style. */
final class FormatCommand extends TerminalCommand {
    private static final String STANDARD = "-";

    private final PositionalParamSpec words =
            files("MAPPING", "A file, or a pattern in quotes; - is from standard input to standard output.");
    private final OptionSpec check = flag(
            "--check", "Change nothing; name the files that are not in the style, and end with 1 if there are any.");

    FormatCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Lay mappings out in the one style.",
                        "Indentation, blanks, and equals signs that stand under one another; lines end where they ended, comments stay, and the meaning is the same.")
                .addPositional(words)
                .addOption(check);
    }

    @Override
    public Integer call() {
        List<String> names = words.getValue();
        if (names.equals(List.of(STANDARD))) {
            return standard();
        }
        int code = ExitCode.GOOD;
        for (Path file : named(words)) {
            code = Math.max(code, file(file));
        }
        return code;
    }

    private int standard() {
        try {
            String text = new String(terminal().in().readAllBytes(), StandardCharsets.UTF_8);
            FormattedMapping formatted = Morphema.standard().format("standard input", text);
            terminal().problems(!hidesValues()).print(formatted.problems());
            terminal().text().print(formatted.text());
            return ExitCode.of(formatted.problems());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private int file(Path file) {
        FormattedMapping formatted = Morphema.standard().format(file);
        terminal().problems(!hidesValues()).print(formatted.problems());
        int code = ExitCode.of(formatted.problems());
        if (code == ExitCode.GOOD && formatted.isChanged()) {
            if (isOn(check)) {
                terminal().text().println(file);
                return ExitCode.DATA;
            }
            formatted.write();
            terminal().words().println("formatted " + file);
        }
        return code;
    }
}
