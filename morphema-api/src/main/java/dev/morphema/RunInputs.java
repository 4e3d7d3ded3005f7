package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.engine.Run;
import dev.morphema.format.Input;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.util.List;

/** Opens the inputs of one run. */
record RunInputs(Program program, Inputs inputs) implements Run.Readers {
    /** So large an input is no burden to keep, and reading it twice would take longer. */
    private static final long SMALL = 1 << 20;

    @Override
    public RecordReader open(int source, List<FieldName> path, Projection projection) throws IOException {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        List<Input> all = inputs.bySource().get(checked.decl().name().text());
        return checked.isOfManyFiles()
                ? new ChainedReader(all, input -> opened(input, checked, path, projection))
                : opened(all.get(0), checked, path, projection);
    }

    private static RecordReader opened(
            Input input, CheckedMapping.Source source, List<FieldName> path, Projection projection) {
        try {
            return path.isEmpty()
                    ? source.format().open(input, projection, source.options())
                    : source.format().openAt(input, path, projection, source.options());
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(
                                    e instanceof NoSuchFileException ? Code.FILE_NOT_FOUND : Code.NOT_READABLE,
                                    "The input of the source "
                                            + source.decl().name().text() + " cannot be read: " + FileFaults.reason(e)
                                            + ".")
                            .withValue(input.name()),
                    e);
        }
    }

    @Override
    public boolean isSmall(int source) {
        String name = program.mapping().sources().get(source).decl().name().text();
        long total = 0;
        try {
            for (Input input : inputs.bySource().get(name)) {
                long size = input.size();
                if (size == Input.UNKNOWN_SIZE) {
                    return false;
                }
                total += size;
            }
        } catch (IOException e) {
            // whoever opens the input tells what is wrong with it
            return false;
        }
        return total < SMALL;
    }
}
