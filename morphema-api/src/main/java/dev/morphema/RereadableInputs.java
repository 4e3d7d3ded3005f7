package dev.morphema;

import dev.morphema.engine.Program;
import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;

/** Inputs of which those that a mapping reads more than once, but that give their bytes only once, are spooled first. */
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
            if (program.readings(i) > 1 && !given.stream().allMatch(Input::isRereadable)) {
                rereadable.spool(source, given);
            }
        }
        return rereadable;
    }

    private void spool(String source, List<Input> given) {
        List<Input> spooled = new ArrayList<>();
        try {
            for (Input input : given) {
                spooled.add(input.isRereadable() ? input : spooled(input));
            }
        } catch (IOException e) {
            close();
            throw new ProblemException(
                    Problem.error(
                            Code.NOT_READABLE,
                            "The input of the source " + source + " cannot be read: " + e.getMessage() + "."),
                    e);
        }
        inputs = inputs.with(source, spooled);
    }

    private Input spooled(Input input) throws IOException {
        Spool spool = new Spool();
        spools.add(spool);
        try (InputStream bytes = input.open()) {
            bytes.transferTo(spool);
        }
        return new Inputs.NamedInput(input.name(), spool.size(), spool::open);
    }

    Inputs inputs() {
        return inputs;
    }

    @Override
    public void close() {
        spools.forEach(Spool::delete);
    }
}
