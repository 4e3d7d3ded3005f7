package dev.morphema;

import dev.morphema.format.RecordReader;
import dev.morphema.problem.Problem;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Reads several inputs one after the other as one sequence. Not thread-safe. */
final class ChainedReader implements RecordReader {
    private final Iterator<ReadAhead.Opening> inputs;
    private final int ahead;
    /** The one at hand and, if they read ahead, those after it. */
    private final Deque<RecordReader> open = new ArrayDeque<>();

    private final List<Problem> warnings = new ArrayList<>();
    private int stepsFound = -1;

    /**
     * @param inputs each gives a reader of one input
     * @param ahead how many inputs beyond the one at hand are opened
     */
    ChainedReader(List<ReadAhead.Opening> inputs, int ahead) {
        this.inputs = inputs.iterator();
        this.ahead = ahead;
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public @Nullable Value next() throws IOException {
        while (fill()) {
            RecordReader current = open.element();
            Value record = current.next();
            if (record != null) {
                return record;
            }
            warnings.addAll(current.warnings());
            stepsFound = Math.max(stepsFound, current.stepsFound());
            open.remove().close();
        }
        return null;
    }

    private boolean fill() throws IOException {
        while (open.size() <= ahead && inputs.hasNext()) {
            open.add(inputs.next().open());
        }
        return !open.isEmpty();
    }

    @Override
    public int stepsFound() {
        return stepsFound;
    }

    @Override
    public List<Problem> warnings() {
        return warnings;
    }

    @Override
    public void close() throws IOException {
        while (!open.isEmpty()) {
            open.remove().close();
        }
    }
}
