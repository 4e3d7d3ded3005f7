package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.RecordOutput;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** Records that wait for the end of the run in a transaction of what takes them. */
final class StagedRecords extends StagedOutput {
    private final RecordOutput output;
    private RecordOutput.@Nullable Transaction transaction;

    StagedRecords(RecordOutput output) {
        this.output = output;
    }

    @Override
    DocumentWriter writer(Writers.@Nullable Document name, TargetFormat format, TargetFormat.Document document)
            throws IOException {
        if (!format.name().equals(output.format())) {
            throw new ProblemException(Problem.error(
                            Code.USAGE,
                            "This output takes targets of the format " + output.format() + ", not " + format.name()
                                    + ".")
                    .withValue(output.name())
                    .withHelp("target x: " + output.format() + "(…) { … }, or give it a file"));
        }
        transaction = output.open(document);
        return transaction.writer();
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        throw new IllegalStateException("takes no bytes");
    }

    @Override
    void close() {
        // its writer has finished
    }

    @Override
    void confirm() throws IOException {
        if (transaction != null) {
            transaction.commit();
        }
    }

    @Override
    void discard() {
        if (transaction != null) {
            transaction.close();
        }
    }
}
