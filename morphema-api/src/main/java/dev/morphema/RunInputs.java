package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.engine.Readers;
import dev.morphema.format.Input;
import dev.morphema.format.KeyedReader;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.output.FileFaults;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Opens the inputs of one run. Large ones are read in threads of their own. */
final class RunInputs implements Readers {
    /** So large an input is no burden to keep, and reading it twice would take longer. */
    static final int SMALL = 1 << 20;

    /** So much is looked at to tell what an input has in place of what is missing. */
    private static final int EXAMPLES = 100;

    private static final int EXAMPLES_OF_INPUTS = 3;

    private final Program program;
    private final Inputs inputs;
    private final ReadingThreads threads;
    private final Limits limits;
    private Map<String, Value> parameters = Map.of();

    /**
     * @param threads end with the run
     * @param limits of what is read
     */
    RunInputs(Program program, Inputs inputs, ReadingThreads threads, Limits limits) {
        this.program = program;
        this.inputs = inputs;
        this.threads = threads;
        this.limits = limits;
    }

    @Override
    public void parameters(Map<String, Value> values) {
        parameters = values;
    }

    @Override
    public RecordReader open(int source, List<FieldName> path, Projection projection) throws IOException {
        return opened(source, path, projection, false);
    }

    @Override
    public RecordReader openPassing(int source, List<FieldName> path, Projection projection) throws IOException {
        return opened(source, path, projection, true);
    }

    /**
     * @param passing whether no record is kept, so that one that is left where it was read need not
     *     be detached
     */
    private RecordReader opened(int source, List<FieldName> path, Projection projection, boolean passing)
            throws IOException {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        List<Input> all = inputsOf(source);
        boolean ahead = threads.areWorthwhile(size(all), checked.isOfManyFiles())
                && all.stream().allMatch(Input::isRereadable);
        if (checked.isOfManyFiles()) {
            List<ReadAhead.Opening> openings = all.stream()
                    .map(input -> opening(input, checked, path, projection))
                    .map(opening -> ahead ? (ReadAhead.Opening) () -> ahead(opening) : opening)
                    .toList();
            return new ChainedReader(openings, ahead ? threads.count() : 0);
        }
        RecordReader reader = opened(all.get(0), checked, path, projection);
        boolean soonDone = passing && reader.leavesRecords();
        return ahead && !soonDone && reader.isSequence() ? ahead(() -> reader) : reader;
    }

    private ReadAhead ahead(ReadAhead.Opening opening) {
        return new ReadAhead(opening, threads.service());
    }

    private ReadAhead.Opening opening(
            Input input, CheckedMapping.Source source, List<FieldName> path, Projection projection) {
        return () -> opened(input, source, path, projection);
    }

    private RecordReader opened(
            Input input, CheckedMapping.Source source, List<FieldName> path, Projection projection) {
        Options options = source.options().within(limits).withParameters(parameters);
        try {
            return path.isEmpty()
                    ? source.format().open(input, projection, options)
                    : source.format().openAt(input, path, projection, options);
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
    public KeyedReader openKeyed(int source, Projection projection) throws IOException {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        Options options = checked.options().within(limits).withParameters(parameters);
        return checked.format().openKeyed(inputsOf(source).get(0), projection, options);
    }

    @Override
    public boolean isSmall(int source) {
        long size = size(inputsOf(source));
        return size != Input.UNKNOWN_SIZE && size < SMALL;
    }

    @Override
    public String nameOf(int source) {
        return inputsOf(source).get(0).name();
    }

    private List<Input> inputsOf(int source) {
        return inputs.bySource()
                .get(program.mapping().sources().get(source).decl().name().text());
    }

    @Override
    public List<Value> examples(int source) {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        List<Input> all = inputsOf(source);
        List<Value> found = new ArrayList<>();
        for (Input input : all.subList(0, Math.min(all.size(), EXAMPLES_OF_INPUTS))) {
            if (input.isRereadable()) {
                addExamples(opened(input, checked, List.of(), Projection.everything()), size(List.of(input)), found);
            }
        }
        return found;
    }

    private static void addExamples(RecordReader opened, long size, List<Value> found) {
        try (RecordReader reader = opened) {
            boolean small = size != Input.UNKNOWN_SIZE && size < SMALL;
            Value record = small || reader.isSequence() ? reader.next() : null;
            for (int i = 0; record != null && i < EXAMPLES; i++) {
                found.add(RecordValue.detached(record));
                record = reader.next();
            }
        } catch (IOException | ProblemException e) {
            // What was found so far must do: the run has read the input without this fault, or not
            // come to it.
        }
    }

    /** {@return how many bytes some inputs have, or that this is not known} */
    private static long size(List<Input> inputs) {
        long total = 0;
        try {
            for (Input input : inputs) {
                long size = input.size();
                if (size == Input.UNKNOWN_SIZE) {
                    return size;
                }
                total += size;
            }
        } catch (IOException e) {
            // whoever opens the input tells what is wrong with it
            return Input.UNKNOWN_SIZE;
        }
        return total;
    }
}
