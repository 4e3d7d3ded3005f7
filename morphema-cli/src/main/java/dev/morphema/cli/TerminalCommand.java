package dev.morphema.cli;

import dev.morphema.FilePattern;
import dev.morphema.Morphema;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.ArgGroupSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/**
 * A command with the options that all commands take; gives its exit code. Options are declared as
 * objects, not by annotations: to look for these takes longer than a small run.
 */
abstract class TerminalCommand implements Callable<Integer> {
    private final Terminal terminal;
    private final OptionSpec hideValues = flag("--hide-values", "Leave data out of messages about problems.");
    private final OptionSpec debug = flag("--debug", "Show where in the program a failure arose.");

    TerminalCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    /** {@return the command as the command line knows it} */
    abstract CommandSpec spec();

    /** {@return a command without options of its own, so far} */
    final CommandSpec spec(String... description) {
        CommandSpec spec = CommandSpec.wrapWithoutInspection(this);
        spec.usageMessage().description(description);
        return withHelp(spec).addArgGroup(group("Messages", 3, messages().toArray(OptionSpec[]::new)));
    }

    /** {@return the options that say what is printed beside the result} */
    List<OptionSpec> messages() {
        return List.of(hideValues, debug);
    }

    /** {@return options that stand together in the help} */
    static ArgGroupSpec group(String heading, int order, OptionSpec... options) {
        ArgGroupSpec.Builder group = ArgGroupSpec.builder()
                .heading("%n" + heading + "%n")
                .order(order)
                .multiplicity("0..1")
                .exclusive(false)
                .validate(false);
        for (OptionSpec option : options) {
            group.addArg(option);
        }
        return group.build();
    }

    /** Adds the options that tell of the command. */
    static CommandSpec withHelp(CommandSpec spec) {
        return spec.versionProvider(new Version())
                .addOption(OptionSpec.builder("-h", "--help")
                        .usageHelp(true)
                        .description("Show this help message and exit.")
                        .build())
                .addOption(OptionSpec.builder("-V", "--version")
                        .versionHelp(true)
                        .description("Print version information and exit.")
                        .build());
    }

    /** {@return an option that is there or not} */
    static OptionSpec flag(String name, String description) {
        return OptionSpec.builder(name)
                .type(boolean.class)
                .arity("0")
                .description(description)
                .build();
    }

    /** {@return an option that has one value, or none if it is not given} */
    static OptionSpec value(String name, Class<?> type, String label, String... description) {
        return OptionSpec.builder(name)
                .type(type)
                .arity("1")
                .paramLabel(label)
                .description(description)
                .build();
    }

    static boolean isOn(OptionSpec flag) {
        return Boolean.TRUE.equals(flag.getValue());
    }

    /** {@return an option that may be given any number of times} */
    static OptionSpec repeated(String name, String label, String description) {
        return OptionSpec.builder(name)
                .type(List.class)
                .auxiliaryTypes(String.class)
                .arity("1")
                .paramLabel(label)
                .description(description)
                .build();
    }

    static List<String> words(OptionSpec repeated) {
        @Nullable List<String> words = repeated.getValue();
        return words == null ? List.of() : words;
    }

    /** {@return the parameter that names the mapping} */
    static PositionalParamSpec mappingFile() {
        return PositionalParamSpec.builder()
                .index("0")
                .type(Path.class)
                .arity("1")
                .required(true)
                .paramLabel("MAPPING")
                .description("The file with the mapping; - is standard input.")
                .build();
    }

    /** {@return the parameter that names files} */
    static PositionalParamSpec files(String label, String description) {
        return PositionalParamSpec.builder()
                .index("0..*")
                .type(List.class)
                .auxiliaryTypes(String.class)
                .arity("1..*")
                .required(true)
                .paramLabel(label)
                .description(description)
                .build();
    }

    /** {@return the files that are named, also by patterns} */
    static List<Path> named(PositionalParamSpec files) {
        List<Path> found = new ArrayList<>();
        files.<List<String>>getValue().forEach(word -> found.addAll(FilePattern.files(Path.of(""), word)));
        return found;
    }

    /** {@return the option that names folders which a mapping may read of} */
    static OptionSpec allowRead() {
        return repeated(
                "--allow-read",
                "FOLDER",
                "A folder in which, and below, the mapping may read tables, samples and other mappings; without it only its own.");
    }

    /** {@return what loads mappings, with all formats and the folders they may read of} */
    static Morphema morphema(OptionSpec allowRead) {
        Morphema.Builder morphema = Morphema.builder();
        words(allowRead).forEach(folder -> morphema.allowRead(Path.of(folder)));
        return morphema.build();
    }

    final Terminal terminal() {
        return terminal;
    }

    final boolean hidesValues() {
        return isOn(hideValues);
    }

    final boolean debugs() {
        return isOn(debug);
    }

    /** {@return the problem of words that cannot be} */
    static ProblemException usage(String message, @Nullable String help) {
        return new ProblemException(Problem.error(Code.USAGE, message).withHelp(help));
    }
}
