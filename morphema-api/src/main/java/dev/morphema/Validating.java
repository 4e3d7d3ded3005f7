package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.format.Input;
import dev.morphema.output.FileFaults;
import dev.morphema.output.StagedOutputs;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.WrittenBy;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Looks whether the inputs and outputs of a run are as the schemas say that the mapping names. */
final class Validating {
    private final Program program;
    private final DocumentCheck check;
    private final SchemaReader.Files files;

    Validating(Program program, DocumentCheck check, SchemaReader.Files files) {
        this.program = program;
        this.check = check;
        this.files = files;
    }

    /**
     * Looks at all inputs, before anything is written.
     *
     * @throws ProblemException if one is not as its schema says, or can be read only once
     */
    void inputs(Inputs inputs) {
        List<Problem> problems = new ArrayList<>();
        for (CheckedMapping.Source source : program.mapping().sources()) {
            String schema = source.schema().orElse(null);
            String name = source.decl().name().text();
            for (Input input :
                    schema == null ? List.<Input>of() : inputs.bySource().get(name)) {
                if (!input.isRereadable()) {
                    throw new ProblemException(Problem.error(
                                    Code.USAGE,
                                    "The input of " + name + " can be read only once, so it cannot be validated.")
                            .withHelp("give it as a file"));
                }
                problems.addAll(checked(input, source.format().name(), schema));
            }
        }
        refuse(problems);
    }

    /**
     * Looks at all outputs that are to be files, before any takes its place.
     *
     * @throws ProblemException if one is not as its schema says
     */
    void outputs(StagedOutputs staged) throws IOException {
        List<Problem> problems = new ArrayList<>();
        for (StagedOutputs.Waiting waiting : staged.waiting()) {
            CheckedMapping.Target target = program.mapping().targets().get(waiting.target());
            String schema = target.schema().orElse(null);
            if (schema != null) {
                Input written = new Written(waiting.place(), waiting.file());
                checked(written, target.format().name(), schema).stream()
                        .map(problem -> withRule(problem, target.decl()))
                        .forEach(problems::add);
            }
        }
        refuse(problems);
    }

    /** {@return a problem of an output with the rule that made what is wrong} */
    private static Problem withRule(Problem problem, Decl.Target target) {
        String path = problem.input() == null ? null : problem.input().field();
        List<Span> rules = WrittenBy.find(target, path == null ? List.of() : names(path));
        if (rules.isEmpty()) {
            return problem;
        }
        Problem placed = problem.at(rules.get(0).location());
        List<Span> others = rules.subList(1, rules.size());
        return others.isEmpty()
                ? placed
                : placed.withFurtherHelp("it may also be written by the rule on " + lines(others));
    }

    private static String lines(List<Span> rules) {
        return rules.stream().map(rule -> "line " + rule.line()).distinct().collect(Collectors.joining(", "));
    }

    /** {@return the names in a path such as {@code /Notice/Call[2]/Eta} or {@code /calls/1/eta}} */
    private static List<String> names(String path) {
        return Stream.of(path.split("/"))
                .map(step ->
                        step.replaceFirst("\\[\\d+\\]$", "").replace("~1", "/").replace("~0", "~"))
                .filter(step -> !step.isEmpty() && !step.chars().allMatch(Character::isDigit))
                .toList();
    }

    private List<Problem> checked(Input document, String format, String schema) {
        try {
            return check.check(document, format, schema, files);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(
                            Code.NOT_READABLE, "What is to be validated cannot be read: " + FileFaults.reason(e) + "."),
                    e);
        }
    }

    private static void refuse(List<Problem> problems) {
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
    }

    /** What was written, by the name of the place that it is to take. */
    private record Written(Path place, Path file) implements Input {
        @Override
        public String name() {
            return place.getFileName().toString();
        }

        @Override
        public InputStream open() throws IOException {
            return Files.newInputStream(file);
        }

        @Override
        public boolean isRereadable() {
            return true;
        }
    }
}
