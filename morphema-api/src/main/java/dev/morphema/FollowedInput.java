package dev.morphema;

import dev.morphema.engine.RunWatch;
import dev.morphema.format.CountingStream;
import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.InputLocation;
import java.io.IOException;
import java.io.InputStream;

/**
 * An input whose bytes are counted while they are read; that stops at a limit, and when the run is
 * cancelled.
 */
final class FollowedInput implements Input {
    private final Input input;
    private final RunControl control;
    private final Limits limits;

    FollowedInput(Input input, RunControl control, Limits limits) {
        this.input = input;
        this.control = control;
        this.limits = limits;
        try {
            control.expect(input.size());
        } catch (IOException e) {
            control.expect(UNKNOWN_SIZE);
        }
    }

    @Override
    public String name() {
        return input.name();
    }

    @Override
    public InputStream open() throws IOException {
        return new Counting(input.open());
    }

    @Override
    public boolean isRereadable() {
        return input.isRereadable();
    }

    @Override
    public long size() throws IOException {
        return input.size();
    }

    private final class Counting extends CountingStream {
        Counting(InputStream in) {
            super(in);
        }

        @Override
        protected void counted(int more) {
            control.readBytes(more);
            if (count() > limits.most(Limit.BYTES)) {
                throw limits.exceeded(Limit.BYTES, InputLocation.at(name(), 0, 0));
            }
            RunWatch.stopIf(control.isCancelled());
        }
    }
}
