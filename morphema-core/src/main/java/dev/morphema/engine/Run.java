package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.plan.Scan;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** One run of a program: reads the sources, writes the targets. Of use once, by one thread. */
public final class Run {
    /**
     * What a run came to.
     *
     * @param read how many records each source had; 1 for one that is no sequence
     * @param written how many turns the outermost loops of each target had; 1 for a document
     *     without loop
     * @param counts of what is not in the outputs
     */
    public record Outcome(List<Long> read, List<Long> written, Counts counts) {
        public Outcome {
            read = List.copyOf(read);
            written = List.copyOf(written);
        }
    }

    /** A target that takes in records. */
    private record Streaming(TargetRun target, RecordSink sink) {}

    private final Program program;
    private final Readers readers;
    private final RunState state;
    private final long[] read;
    /**
     * The sources whose readers have told their warnings; one that is read again would tell the
     * same.
     */
    private final BitSet warned = new BitSet();

    private final Map<Integer, PathWatch.Found> found = new TreeMap<>();
    private final AskedSources asked;
    /** The sources that are sequences of records and have none. */
    private final BitSet empty = new BitSet();
    /** The sources that were not read to their end. */
    private final BitSet leftEarly = new BitSet();

    private Run(Program program, RunSettings settings, Readers readers) {
        this.program = program;
        this.readers = readers;
        this.read = new long[program.mapping().sources().size()];
        @Nullable Value[] values = new Value[program.params().size()];
        Map<String, Value> byName = new HashMap<>();
        this.state = new RunState(program, values, settings, new Sources());
        for (int i = 0; i < values.length; i++) {
            values[i] = ParamValues.of(program.params().get(i), settings.params(), state);
            byName.put(program.params().get(i).name(), values[i]);
        }
        readers.parameters(byName);
        this.asked = new AskedSources(readers, state.caches());
    }

    /**
     * Runs a program.
     *
     * @param settings what the run is told from outside
     * @param readers asked once for each source that is needed
     * @param writers asked once for each target
     * @throws ProblemException if the data does not allow what the mapping says, or is not
     *     well-formed
     * @throws IOException if reading or writing fails
     */
    public static Outcome run(Program program, RunSettings settings, Readers readers, Writers writers)
            throws IOException {
        try {
            Run run = new Run(program, settings, readers);
            try (run.asked) {
                return run.run(writers);
            }
        } finally {
            settings.scratch().close();
        }
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

    /**
     * Carries a fault of an input out of the middle of an expression, which is not to blame for it.
     */
    private static final class InputFault extends RuntimeException {
        InputFault(ProblemException cause) {
            super(cause);
        }

        ProblemException problem() {
            return (ProblemException) getCause();
        }
    }

    private Outcome readAndWrite(Writers writers) throws IOException {
        List<@Nullable TargetRun> targets = new ArrayList<>();
        for (int i = 0; i < program.targets().size(); i++) {
            targets.add(TargetRun.of(i, program, state, writers));
        }
        for (Scan pass : program.scans()) {
            if (streams(pass)) {
                stream(
                        pass,
                        targets.stream()
                                .filter(target -> target != null
                                        && pass.equals(target.target().scan()))
                                .toList());
            }
        }
        for (TargetRun target : targets) {
            if (target != null && !streams(target.target().scan())) {
                target.begin();
                target.write();
            }
        }
        reportDrift();
        reportEmpty();
        List<Long> written = new ArrayList<>();
        for (int i = 0; i < targets.size(); i++) {
            boolean single = targets.get(i) != null && !program.targets().get(i).repeats();
            written.add(single ? 1 : state.written(i));
        }
        List<Long> counts = new ArrayList<>();
        for (long count : read) {
            counts.add(count);
        }
        return new Outcome(counts, written, state.counts());
    }

    private void reportDrift() {
        found.forEach((source, paths) -> {
            if (!leftEarly.get(source)) {
                new Drift(
                                program.mapping().sources().get(source),
                                paths,
                                () -> readers.examples(source),
                                () -> readers.nameOf(source),
                                state::warn)
                        .report();
            }
        });
    }

    /** Nothing comes of an input without records, which is easily overlooked. */
    private void reportEmpty() {
        empty.stream().forEach(source -> {
            String name = program.mapping().sources().get(source).decl().name().text();
            state.warn(Problem.warning(Code.NO_RECORDS, "The input of the source " + name + " has no record.")
                    .in(InputLocation.at(readers.nameOf(source), 0, 0)));
        });
    }

    private Reading begin(int source, List<FieldName> path, Projection projection) {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        // Readers of flat sources know all columns before the first record.
        boolean flat = checked.format().traits().flat();
        return new Reading(state.limits(), flat ? null : new PathWatch(projection, path, checked.isOfManyFiles()));
    }

    /**
     * Remembers that a sequence of records has none; that nothing is at a path is told otherwise.
     */
    private void see(int source, List<FieldName> path, RecordReader reader, long records) throws IOException {
        if (records == 0 && path.isEmpty() && reader.isSequence()) {
            empty.set(source);
        }
    }

    private void end(Reading reading, int source, RecordReader reader) {
        warn(source, reader);
        reading.end(reader.stepsFound(), found.computeIfAbsent(source, s -> new PathWatch.Found()));
        read[source] = Math.max(read[source], reading.count());
    }

    /**
     * Whether records are read one at a time; where that takes several readings, a small input is
     * kept instead.
     */
    private boolean streams(@Nullable Scan pass) {
        return pass != null && !keepsAll(pass.source());
    }

    private boolean keepsAll(int source) {
        return program.readings(source) > 1 && readers.isSmall(source);
    }

    /** Reads a source once and pushes each record through all targets that go over it. */
    private void stream(Scan pass, List<TargetRun> targets) throws IOException {
        if (targets.isEmpty()) {
            return;
        }
        List<Streaming> open = new ArrayList<>();
        for (TargetRun target : targets) {
            target.begin();
            open.add(new Streaming(target, target.open()));
        }
        push(pass, open);
        for (Streaming streaming : open) {
            streaming.target().begin();
            streaming.sink().end();
            streaming.target().close();
        }
    }

    private void push(Scan pass, List<Streaming> open) throws IOException {
        int source = pass.source();
        boolean kept = state.units().areThere()
                || open.stream().anyMatch(streaming -> streaming.sink().keeps());
        boolean bytes =
                !kept && open.stream().allMatch(streaming -> streaming.sink().takesBytes());
        Projection projection =
                bytes ? state.caches().bytesProjection(source) : state.caches().projection(source);
        try (RecordReader reader = kept
                ? readers.open(source, pass.path(), projection)
                : readers.openPassing(source, pass.path(), projection)) {
            Reading reading = begin(source, pass.path(), projection);
            push(reader, source, open, kept, reading);
            end(reading, source, reader);
            see(source, pass.path(), reader, reading.count());
        }
    }

    private void warn(int source, RecordReader reader) {
        if (!warned.get(source)) {
            warned.set(source);
            reader.warnings().forEach(state::warn);
        }
    }

    /** Pushes each record into all targets that want more. */
    private void push(RecordReader reader, int source, List<Streaming> open, boolean kept, Reading reading) {
        List<Streaming> wanting = new ArrayList<>(open);
        while (!wanting.isEmpty()) {
            Value record = next(reader, source, kept);
            if (record == null) {
                break;
            }
            reading.pass(record);
            if (!state.units().areThere()) {
                push(record, wanting);
            } else {
                state.units().run(record, () -> {
                    push(record, wanting);
                    return true;
                });
            }
        }
        if (wanting.isEmpty()) {
            leftEarly.set(source);
        }
    }

    private void push(Value record, List<Streaming> wanting) {
        for (int i = wanting.size() - 1; i >= 0; i--) {
            Streaming streaming = wanting.get(i);
            streaming.target().begin();
            if (!streaming.sink().accept(record)) {
                state.units().takeUp(() -> wanting.remove(streaming));
            }
        }
    }

    /**
     * The next record; a failure to read is told as such, so that it is not taken for one to write.
     */
    private @Nullable Value next(RecordReader reader, int source, boolean kept) {
        try {
            Value record = reader.next();
            return kept && record != null ? RecordValue.detached(record) : record;
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

    /** Reads sources in the middle of an expression. */
    private final class Sources implements RunState.Sources {
        @Override
        public Value read(int source) {
            return whole(source);
        }

        @Override
        public boolean streams(Scan pass) {
            return Run.this.streams(pass);
        }

        @Override
        public List<Value> ask(int source, List<Value> key) {
            try {
                List<Value> records = asked.find(source, key);
                read[source] += records.size();
                return records;
            } catch (IOException e) {
                throw new InputFault(unreadable(source, e));
            }
        }

        @Override
        public void each(Scan scan, ItemSink sink) {
            int source = scan.source();
            List<FieldName> path = scan.path();
            Projection projection = state.caches().projection(source);
            try (RecordReader reader = readers.open(source, path, projection)) {
                boolean more = true;
                Reading reading = begin(source, path, projection);
                Value record = next(reader);
                while (record != null && more) {
                    reading.pass(record);
                    Value one = record;
                    more = state.units().run(record, () -> sink.accept(one));
                    record = more ? next(reader) : null;
                }
                end(reading, source, reader);
                see(source, path, reader, reading.count());
                if (!more) {
                    leftEarly.set(source);
                }
            } catch (IOException e) {
                throw new InputFault(unreadable(source, e));
            }
        }

        private @Nullable Value next(RecordReader reader) throws IOException {
            try {
                Value record = reader.next();
                return record == null ? null : RecordValue.detached(record);
            } catch (ProblemException e) {
                throw new InputFault(e);
            }
        }
    }

    private Value whole(int source) {
        CheckedMapping.Source checked = program.mapping().sources().get(source);
        Projection projection = keepsAll(source)
                ? state.caches().projection(source)
                : state.caches().keptProjection(source);
        try (RecordReader reader = readers.open(source, List.of(), projection)) {
            Value value = reader.whole();
            Reading reading = begin(source, List.of(), projection);
            reading.see(value);
            end(reading, source, reader);
            see(
                    source,
                    List.of(),
                    reader,
                    value instanceof ListValue list ? list.items().size() : 1);
            if (value instanceof ListValue list) {
                read[source] = Math.max(read[source], list.items().size());
                return checked.isSequence() ? Many.owned(list.items()) : list;
            }
            read[source] = Math.max(read[source], value == Missing.ABSENT ? 0 : 1);
            if (keepsAll(source)) {
                read[source] = program.allScans()
                        .filter(pass -> pass.source() == source)
                        .mapToLong(pass -> count(value, pass.path()))
                        .max()
                        .orElse(1);
            }
            return value;
        } catch (IOException e) {
            throw new InputFault(unreadable(source, e));
        } catch (ProblemException e) {
            throw new InputFault(e);
        }
    }

    /**
     * How many records there are at a path, so that they count alike whether they stream or not.
     */
    private static long count(Value value, List<FieldName> path) {
        if (value instanceof Many many) {
            return many.items().stream().mapToLong(item -> count(item, path)).sum();
        }
        if (path.isEmpty()) {
            return value.isMissing() ? 0 : 1;
        }
        return value instanceof RecordValue record
                ? Arrays.stream(PathNodes.slots(record.layout(), path.get(0)))
                        .mapToLong(slot -> count(record.get(slot), path.subList(1, path.size())))
                        .sum()
                : 0;
    }
}
