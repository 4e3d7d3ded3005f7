package dev.morphema.cli;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.samples.CaseResult;
import dev.morphema.samples.CaseRunner;
import dev.morphema.samples.Difference;
import dev.morphema.samples.SampleCase;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema test}: runs sample cases and shows where an output is not as expected. */
final class TestCommand extends TerminalCommand {
    private static final int MOST_SHOWN = 10;

    private final PositionalParamSpec paths = PositionalParamSpec.builder()
            .index("0..*")
            .type(List.class)
            .auxiliaryTypes(Path.class)
            .arity("0..*")
            .paramLabel("PATH")
            .description(
                    "Mappings, folders of cases, cases, or folders above them; the current folder if none is named.")
            .build();

    private final OptionSpec allowRead = allowRead();

    TestCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Run sample cases.",
                        "Beside arrival.morphema, the folder arrival.cases/ has a folder for each case: in/ with files named after the sources, out/ with what is expected of the targets.")
                .addPositional(paths)
                .addOption(allowRead);
    }

    @Override
    public Integer call() {
        List<SampleCase> cases = new ArrayList<>();
        @Nullable List<Path> named = paths.getValue();
        for (Path path : named == null || named.isEmpty() ? List.of(Path.of(".")) : named) {
            cases.addAll(SampleCase.find(path));
        }
        if (cases.isEmpty()) {
            throw new ProblemException(Problem.error(Code.USAGE, "There are no cases here.")
                    .withHelp("a case is a folder in NAME.cases/ beside NAME.morphema, with in/ and out/ in it"));
        }
        CaseRunner runner = new CaseRunner(morphema(allowRead));
        List<CaseResult> results = new ArrayList<>();
        for (SampleCase sampleCase : cases) {
            CaseResult result = runner.run(sampleCase);
            print(result);
            results.add(result);
        }
        return summed(results);
    }

    private int summed(List<CaseResult> results) {
        long failed = results.stream().filter(r -> !r.passed()).count();
        terminal()
                .text()
                .println(results.size() + (results.size() == 1 ? " case: " : " cases: ") + (results.size() - failed)
                        + " passed, " + failed + " failed");
        return results.stream()
                .filter(r -> !r.passed())
                .mapToInt(r -> r.problems().isEmpty() ? ExitCode.DATA : ExitCode.of(r.problems()))
                .max()
                .orElse(ExitCode.GOOD);
    }

    private void print(CaseResult result) {
        PrintWriter out = terminal().text();
        boolean colours = terminal().look().colourOut();
        out.println((result.passed() ? Colour.PASSED.of("passed  ", colours) : Colour.FAILED.of("failed  ", colours))
                + result.sampleCase().name());
        result.differences().forEach((target, differences) -> {
            out.println("  " + target + ": " + differences.size()
                    + (differences.size() == 1 ? " difference" : " differences"));
            differences.stream().limit(MOST_SHOWN).forEach(this::print);
            if (differences.size() > MOST_SHOWN) {
                out.println("    … and " + (differences.size() - MOST_SHOWN) + " more");
            }
        });
        new ProblemPrinter(
                        out,
                        !hidesValues(),
                        terminal().look().colourOut(),
                        terminal().look().width())
                .printEach(result.problems());
    }

    private void print(Difference difference) {
        terminal().text().println("    " + difference.path());
        if (!hidesValues()) {
            terminal().text().println("      expected " + difference.expected());
            terminal().text().println("      actual   " + difference.actual());
        }
    }
}
