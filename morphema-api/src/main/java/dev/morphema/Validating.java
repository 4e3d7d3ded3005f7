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
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

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
                problems.addAll(checked(written, target.format().name(), schema));
            }
        }
        refuse(problems);
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
