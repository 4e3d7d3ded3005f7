package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import dev.morphema.RunOptions;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code morphema run}: runs a mapping on inputs and outputs. */
@Command(
        name = "run",
        description = "Run a mapping.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples%n",
        footer = {
            "  morphema run arrival.morphema --in manifest.csv",
            "  morphema run arrival.morphema --in manifest=manifest.csv --out notice=notice.xml --out berths=berths.json",
            "  morphema run dues.morphema --in - --out dues.csv --param valid=2026-03-01"
        })
final class RunCommand extends TerminalCommand {
    private static final String STANDARD = "-";

    @Parameters(paramLabel = "MAPPING", description = "The file with the mapping.")
    private Path file = Path.of("");

    @Option(
            names = "--in",
            paramLabel = "[SOURCE=]FILE",
            description = "The input of a source; - is standard input. With one source its name may be left out.")
    private List<String> in = new ArrayList<>();

    @Option(
            names = "--out",
            paramLabel = "[TARGET=]FILE",
            description =
                    "The output of a target; - is standard output. With one target its name may be left out. Without --out the result is shown and no file is written.")
    private List<String> out = new ArrayList<>();

    @Option(names = "--param", paramLabel = "NAME=VALUE", description = "The value of a parameter.")
    private List<String> params = new ArrayList<>();

    @Option(names = "--quiet", description = "Say nothing of what was read and written.")
    private boolean quiet;

    RunCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    public Integer call() {
        long start = System.nanoTime();
        ProblemPrinter printer = new ProblemPrinter(terminal().words(), !common().hideValues());
        Checked checked = Morphema.standard().check(file);
        printer.print(checked.problems());
        Mapping mapping = checked.mapping().orElse(null);
        if (mapping == null) {
            return ExitCode.of(checked.problems());
        }
        Map<String, String> outputs = outputs(mapping);
        Result result = mapping.run(inputs(mapping), staged(outputs), options());
        printer.print(result.warnings());
        if (!quiet) {
            new Account(terminal().words()).print(result, outputs, System.nanoTime() - start);
        }
        return ExitCode.GOOD;
    }

    private Inputs inputs(Mapping mapping) {
        Inputs inputs = Inputs.NONE;
        boolean standardTaken = false;
        for (Map.Entry<String, String> input :
                named(in, mapping.sources(), "source", "--in").entrySet()) {
            if (input.getValue().equals(STANDARD)) {
                if (standardTaken) {
                    throw usage("Standard input can be read for one source only.", null);
                }
                standardTaken = true;
                inputs = inputs.andStream(input.getKey(), terminal().in(), "standard input");
            } else {
                inputs = inputs.andFile(input.getKey(), Path.of(input.getValue()));
            }
        }
        return inputs;
    }

    private Map<String, String> outputs(Mapping mapping) {
        if (!out.isEmpty()) {
            return named(out, mapping.targets(), "target", "--out");
        }
        if (mapping.targets().size() == 1) {
            return Map.of(mapping.targets().get(0), STANDARD);
        }
        if (mapping.targets().isEmpty()) {
            throw usage("The mapping has no target, so there is nothing to write.", null);
        }
        throw usage(
                "The mapping has several targets: " + String.join(", ", mapping.targets()) + ".",
                "name the one to look at: --out " + mapping.targets().get(0) + "=-");
    }

    private Outputs staged(Map<String, String> outputs) {
        Outputs staged = Outputs.NONE;
        for (Map.Entry<String, String> output : outputs.entrySet()) {
            staged = output.getValue().equals(STANDARD)
                    ? staged.andStream(output.getKey(), terminal().out())
                    : staged.andFile(output.getKey(), Path.of(output.getValue()));
        }
        return staged;
    }

    private RunOptions options() {
        RunOptions options = RunOptions.DEFAULT;
        for (String param : params) {
            int at = param.indexOf('=');
            if (at <= 0) {
                throw usage("--param takes a name and a value.", "--param name=value");
            }
            options = options.param(param.substring(0, at), param.substring(at + 1));
        }
        return options;
    }

    /** Files by name; the name may be left out where there is only one it can be. */
    private static Map<String, String> named(List<String> words, List<String> known, String what, String option) {
        Map<String, String> files = new LinkedHashMap<>();
        for (String word : words) {
            int at = word.indexOf('=');
            String name = at > 0 ? word.substring(0, at) : "";
            String value = word.substring(at > 0 ? at + 1 : 0);
            if (!known.contains(name)) {
                if (known.size() != 1 || at > 0 && isName(name)) {
                    throw unknown(name, at > 0, known, what, option);
                }
                name = known.get(0);
                value = word;
            }
            if (files.put(name, value) != null) {
                throw usage("The " + what + " " + name + " is given twice.", null);
            }
        }
        return files;
    }

    private static boolean isName(String word) {
        return word.matches("[\\p{L}_][\\p{L}\\p{N}_-]*");
    }

    private static ProblemException unknown(
            String name, boolean given, List<String> known, String what, String option) {
        if (known.isEmpty()) {
            return usage("The mapping has no " + what + ".", null);
        }
        return given
                ? usage(
                        "The mapping has no " + what + " " + name + ".",
                        NearNames.proposal(name, known).orElse(null))
                : usage(
                        "The mapping has several " + what + "s: " + String.join(", ", known) + ".",
                        "say which is meant: " + option + " " + known.get(0) + "=FILE");
    }

    private static ProblemException usage(String message, @Nullable String help) {
        return new ProblemException(Problem.error(Code.USAGE, message).withHelp(help));
    }
}
