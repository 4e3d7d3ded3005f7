package dev.morphema.engine;

import dev.morphema.format.RecordReader;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Nothing;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** One run of a program: reads the sources, writes the targets. Of use once, by one thread. */
public final class Run {
    /** Gives readers of the sources. */
    @FunctionalInterface
    public interface Readers {
        /**
         * {@return a reader of a source; the run closes it}
         *
         * @throws IOException if it cannot be opened
         */
        RecordReader open(int source) throws IOException;
    }

    /** Gives writers of the targets. */
    @FunctionalInterface
    public interface Writers {
        /**
         * {@return a writer of a target, or null if that target is not wanted}
         *
         * @throws IOException if it cannot be opened
         */
        @Nullable
        DocumentWriter open(int target) throws IOException;
    }

    /**
     * What a run came to.
     *
     * @param read how many records each source had; 1 for one that is no sequence
     * @param written how many turns the outermost loops of each target had; 1 for a document without loop
     * @param warnings in the order they arose
     */
    public record Outcome(List<Long> read, List<Long> written, List<Problem> warnings) {
        public Outcome {
            read = List.copyOf(read);
            written = List.copyOf(written);
            warnings = List.copyOf(warnings);
        }
    }

    /** A target that takes in records. */
    private record Streaming(int target, DocumentWriter writer, Frame frame, RecordSink sink) {}

    private final Program program;
    private final Readers readers;
    private final RunState state;
    private final long[] read;

    /**
     * What a run is told from outside.
     *
     * @param params the values of parameters by name; a text is converted to the parameter's type
     * @param now what the mapping takes for the present
     * @param random where codes that look random come from
     */
    public record Settings(Map<String, Value> params, Instant now, Random random) {
        public Settings {
            params = Map.copyOf(params);
        }
    }

    private Run(Program program, Settings settings, Readers readers) {
        this.program = program;
        this.readers = readers;
        this.read = new long[program.mapping().sources().size()];
        @Nullable Value[] values = new Value[program.params().size()];
        this.state = new RunState(program, values, settings.now(), settings.random(), this::whole);
        for (int i = 0; i < values.length; i++) {
            values[i] = param(program.params().get(i), settings.params());
        }
    }

    /**
     * Runs a program.
     *
     * @param settings what the run is told from outside
     * @param readers asked once for each source that is needed
     * @param writers asked once for each target
     * @throws ProblemException if the data does not allow what the mapping says, or is not well-formed
     * @throws IOException if reading or writing fails
     */
    public static Outcome run(Program program, Settings settings, Readers readers, Writers writers) throws IOException {
        return new Run(program, settings, readers).run(writers);
    }

    private Outcome run(Writers writers) throws IOException {
        try {
            return readAndWrite(writers);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } catch (InputFault e) {
            throw e.problem();
        }
    }

    /** Carries a fault of an input out of the middle of an expression, which is not to blame for it. */
    private static final class InputFault extends RuntimeException {
        InputFault(ProblemException cause) {
            super(cause);
        }

        ProblemException problem() {
            return (ProblemException) getCause();
        }
    }

    private Outcome readAndWrite(Writers writers) throws IOException {
        List<@Nullable DocumentWriter> opened = new ArrayList<>();
        for (int i = 0; i < program.targets().size(); i++) {
            opened.add(writers.open(i));
        }
        for (int source = 0; source < read.length; source++) {
            if (program.streams(source)) {
                stream(source, opened);
            }
        }
        for (int i = 0; i < opened.size(); i++) {
            DocumentWriter writer = opened.get(i);
            Program.Target target = program.targets().get(i);
            if (writer != null && target.streamed() < 0) {
                state.writing(i);
                target.document().write(frame(target), writer);
                writer.finish();
            }
        }
        List<Long> written = new ArrayList<>();
        for (int i = 0; i < opened.size(); i++) {
            boolean single = opened.get(i) != null && !program.targets().get(i).repeats();
            written.add(single ? 1 : state.written(i));
        }
        return new Outcome(Arrays.stream(read).boxed().toList(), written, state.warnings());
    }

    private Frame frame(Program.Target target) {
        return new Frame(state, target.checked().slots());
    }

    /** Reads a source once and pushes each record through all targets that go over it. */
    private void stream(int source, List<@Nullable DocumentWriter> writers) throws IOException {
        List<Streaming> open = new ArrayList<>();
        for (int i = 0; i < writers.size(); i++) {
            DocumentWriter writer = writers.get(i);
            Program.Target target = program.targets().get(i);
            if (writer != null && target.streamed() == source) {
                state.writing(i);
                Frame frame = frame(target);
                open.add(new Streaming(i, writer, frame, Streams.open(target.document(), frame, writer)));
            }
        }
        if (open.isEmpty()) {
            return;
        }
        push(source, open);
        for (Streaming target : open) {
            state.writing(target.target());
            target.sink().end();
            Streams.close(program.targets().get(target.target()).document(), target.frame(), target.writer());
            target.writer().finish();
        }
    }

    private void push(int source, List<Streaming> open) throws IOException {
        List<Streaming> wanting = new ArrayList<>(open);
        try (RecordReader reader = readers.open(source)) {
            for (Value record = next(reader, source);
                    record != null && !wanting.isEmpty();
                    record = next(reader, source)) {
                read[source]++;
                Value pushed = record;
                wanting.removeIf(target -> {
                    state.writing(target.target());
                    return !target.sink().accept(pushed);
                });
            }
            reader.warnings().forEach(state::warn);
        }
    }

    /** The next record; a failure to read is told as such, so that it is not taken for one to write. */
    private @Nullable Value next(RecordReader reader, int source) {
        try {
            return reader.next();
        } catch (IOException e) {
            throw unreadable(source, e);
        }
    }

    private ProblemException unreadable(int source, IOException e) {
        String name = program.mapping().sources().get(source).decl().name().text();
        return new ProblemException(
                Problem.error(
                        Code.NOT_READABLE,
                        "The input of the source " + name + " cannot be read to its end: " + e.getMessage() + "."),
                e);
    }

    private Value whole(int source) {
        try (RecordReader reader = readers.open(source)) {
            Value value = reader.whole();
            reader.warnings().forEach(state::warn);
            boolean sequence =
                    program.mapping().sources().get(source).format().traits().sequence();
            if (value instanceof ListValue list) {
                read[source] = list.items().size();
                return sequence ? new Many(list.items()) : list;
            }
            read[source] = value == Nothing.ABSENT ? 0 : 1;
            return value;
        } catch (IOException e) {
            throw new InputFault(unreadable(source, e));
        } catch (ProblemException e) {
            throw new InputFault(e);
        }
    }

    private Value param(Program.Param param, Map<String, Value> given) {
        Value value = given.get(param.name());
        if (value == null) {
            Node fallback = param.fallback();
            if (fallback == null) {
                throw new ProblemException(
                        Problem.error(Code.PARAMETER, "The parameter " + param.name() + " has no value and no default.")
                                .withHelp("give it one, or a default in the mapping"));
            }
            return converted(param.converter(), fallback.scalar(new Frame(state, 0)));
        }
        try {
            return converted(param.converter(), value);
        } catch (ProblemException e) {
            throw new ProblemException(
                    Problem.error(Code.PARAMETER, "The value of the parameter " + param.name() + " is not of its type.")
                            .withValue(e.problem().value())
                            .withHelp(e.problem().message()));
        }
    }

    private static Value converted(Converter converter, Value value) {
        return value.isNothing() ? value : converter.convert(value);
    }
}
