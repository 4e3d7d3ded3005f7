package dev.morphema;

import dev.morphema.format.Input;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.Problem;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Reads several inputs one after the other as one sequence. Each is opened when the one before has ended. */
final class ChainedReader implements RecordReader {
    /** Opens a reader of one input. */
    @FunctionalInterface
    interface Opening {
        RecordReader open(Input input) throws IOException;
    }

    private final Iterator<Input> inputs;
    private final Opening opening;
    private final List<Problem> warnings = new ArrayList<>();
    private @Nullable RecordReader current;

    ChainedReader(List<Input> inputs, Opening opening) {
        this.inputs = inputs.iterator();
        this.opening = opening;
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public @Nullable Value next() throws IOException {
        while (current != null || inputs.hasNext()) {
            if (current == null) {
                current = opening.open(inputs.next());
            }
            Value record = current.next();
            if (record != null) {
                return record;
            }
            warnings.addAll(current.warnings());
            close();
        }
        return null;
    }

    @Override
    public List<Problem> warnings() {
        return warnings;
    }

    @Override
    public void close() throws IOException {
        if (current != null) {
            RecordReader ended = current;
            current = null;
            ended.close();
        }
    }
}
