package dev.morphema;

import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** An input whose bytes are counted while they are read; that stops at a limit, and when the run is cancelled. */
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

    private final class Counting extends FilterInputStream {
        private long count;

        Counting(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int b = in.read();
            count(b < 0 ? 0 : 1);
            return b;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            int read = in.read(into, offset, length);
            count(Math.max(read, 0));
            return read;
        }

        private void count(int more) {
            count += more;
            control.readBytes(more);
            if (count > limits.most(Limit.BYTES)) {
                throw limits.exceeded(Limit.BYTES, InputLocation.at(name(), 0, 0));
            }
            if (control.isCancelled()) {
                throw new ProblemException(
                        Problem.error(Code.CANCELLED, "The run was stopped before its end; nothing was written."));
            }
        }
    }
}
