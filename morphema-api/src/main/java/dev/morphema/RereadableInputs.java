package dev.morphema;

import dev.morphema.engine.Program;
import dev.morphema.format.Input;
import dev.morphema.output.FileFaults;
import dev.morphema.output.Spool;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.util.ArrayList;
import java.util.List;

/**
 * Inputs of which those that give their bytes only once can be read again, where that is wanted and
 * costs little: one that a mapping reads more than once is spooled, and a short one is kept in
 * memory. So whatever is told of a fault does not depend on how the bytes came.
 */
final class RereadableInputs implements AutoCloseable {
    private Inputs inputs;
    private final List<Spool> spools = new ArrayList<>();

    private RereadableInputs(Inputs inputs) {
        this.inputs = inputs;
    }

    static RereadableInputs of(Inputs inputs, Program program) {
        RereadableInputs rereadable = new RereadableInputs(inputs);
        for (int i = 0; i < program.mapping().sources().size(); i++) {
            String source = program.mapping().sources().get(i).decl().name().text();
            List<Input> given = inputs.bySource().get(source);
            if (program.readings(i) > 0 && !given.stream().allMatch(Input::isRereadable)) {
                rereadable.keep(source, given, program.readings(i) > 1);
            }
        }
        return rereadable;
    }

    private void keep(String source, List<Input> given, boolean whole) {
        List<Input> kept = new ArrayList<>();
        try {
            for (Input input : given) {
                kept.add(input.isRereadable() ? input : whole ? spooled(input) : begun(input));
            }
        } catch (IOException e) {
            close();
            throw new ProblemException(
                    Problem.error(
                            Code.NOT_READABLE,
                            "The input of the source " + source + " cannot be read: " + FileFaults.reason(e) + "."),
                    e);
        }
        inputs = inputs.with(source, kept);
    }

    private Input spooled(Input input) throws IOException {
        Spool spool = new Spool();
        spools.add(spool);
        try (InputStream bytes = input.open()) {
            bytes.transferTo(spool);
        }
        return new Inputs.NamedInput(input.name(), spool.size(), spool::open);
    }

    private static Input begun(Input input) throws IOException {
        InputStream bytes = input.open();
        byte[] beginning = bytes.readNBytes(RunInputs.SMALL);
        if (beginning.length < RunInputs.SMALL) {
            bytes.close();
            return Input.of(input.name(), beginning);
        }
        InputStream all = new SequenceInputStream(new ByteArrayInputStream(beginning), bytes);
        return new BegunInput(input.name(), new RememberingStream(all));
    }

    /**
     * An input that is too long to be kept. It is opened once, and remembers the bytes before the
     * place of a fault.
     */
    record BegunInput(String name, RememberingStream stream) implements Input {
        @Override
        public InputStream open() {
            return stream;
        }
    }

    Inputs inputs() {
        return inputs;
    }

    @Override
    public void close() {
        spools.forEach(Spool::delete);
    }
}
