package dev.morphema.cli;

import dev.morphema.draft.Draft;
import dev.morphema.draft.Drafting;
import dev.morphema.samples.Difference;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;

/** Drafts a mapping from samples or schemas of both sides. */
final class DraftCommand extends TerminalCommand {
    private static final int MOST_DIFFERENCES = 5;

    private final OptionSpec from = OptionSpec.builder("--from")
            .type(List.class)
            .auxiliaryTypes(String.class)
            .arity("1")
            .required(true)
            .paramLabel("FILE")
            .description("A sample or a schema of a source; several times for several sources.")
            .build();
    private final OptionSpec to = OptionSpec.builder("--to")
            .type(String.class)
            .arity("1")
            .required(true)
            .paramLabel("FILE")
            .description("What the mapping is to make of the samples; or else a sample or schema of the target.")
            .build();
    private final OptionSpec out =
            value("--out", Path.class, "MAPPING", "The file to write, a new one; without it the mapping is shown.");

    DraftCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Draft a mapping from samples or schemas.",
                        "If --to is what the mapping is to make of the samples, rules are found by the values; else by the names and kinds of fields. What cannot be found is a todo.")
                .addOption(from)
                .addOption(to)
                .addOption(out);
    }

    @Override
    public Integer call() {
        Path place = out.getValue();
        Path folder = place == null ? besideSamples() : Objects.requireNonNullElse(place.getParent(), Path.of(""));
        Draft draft = Drafting.draft(words(from), to.getValue(), folder);
        if (place == null) {
            terminal().text().print(draft.text());
            terminal().text().flush();
        } else {
            draft.write(place);
        }
        tell(draft, place);
        return ExitCode.GOOD;
    }

    /** A mapping that is only shown is put where its samples are, or above. */
    private Path besideSamples() {
        Path here = Path.of("").toAbsolutePath();
        Path sample = Path.of(words(from).get(0)).toAbsolutePath().normalize();
        return sample.startsWith(here) ? here : sample.getParent();
    }

    private void tell(Draft draft, @Nullable Path place) {
        PrintWriter words = terminal().words();
        if (place == null) {
            words.println();
        }
        words.println("drafted " + (place == null ? "a mapping" : place) + ": " + draft.found() + " of "
                + draft.fields() + (draft.fields() == 1 ? " field has a rule" : " fields have a rule"));
        if (!draft.isTried()) {
            words.println("tried   not at all: look at each rule, then run it on a sample");
        } else if (draft.differences().isEmpty()) {
            words.println("tried   with the samples: it gives what is expected");
        } else {
            words.println("tried   with the samples: it gives something else at "
                    + draft.differences().size() + (draft.differences().size() == 1 ? " place" : " places"));
            draft.differences().stream().limit(MOST_DIFFERENCES).forEach(each -> words.println(line(each)));
        }
        if (place != null) {
            words.println("next    morphema run " + place);
        }
        words.flush();
    }

    private String line(Difference difference) {
        return hidesValues()
                ? "        " + difference.path()
                : "        " + difference.path() + " is " + difference.actual() + ", expected " + difference.expected();
    }
}
