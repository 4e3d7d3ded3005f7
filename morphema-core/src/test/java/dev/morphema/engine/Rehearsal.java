package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Checker;
import dev.morphema.check.Environment;
import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.function.FunctionTable;
import dev.morphema.plan.Planner;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.store.Scratch;
import dev.morphema.syntax.Parser;
import dev.morphema.syntax.SourceText;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * Runs a mapping on rows in memory, and tells all that happens on the way, in order: {@code open
 * rows {k, n}}, {@code read}, {@code end}, {@code close}, and what is written of a target.
 */
public final class Rehearsal {
    private final Program program;
    private final Map<String, List<String>> rows = new HashMap<>();
    private final Map<String, Value> params = new HashMap<>();
    private final Set<String> unwanted = new TreeSet<>();
    private final MemoryScratch scratch = new MemoryScratch();
    private long budget = Long.MAX_VALUE;
    private long failAfter = Long.MAX_VALUE;
    private boolean leaves;
    private boolean marks;
    private @Nullable Rejects rejects;

    private final List<String> log = new ArrayList<>();
    private final Map<String, List<String>> byDocument = new TreeMap<>();
    private List<Problem> warnings = List.of();

    /**
     * @param mapping of sources in the format {@code memory}, and targets in the format {@code
     * events}
     */
    Rehearsal(String mapping) {
        this(compile(mapping));
    }

    /** @param program of sources and targets in these formats */
    Rehearsal(Program program) {
        this.program = program;
    }

    static Program compile(String mapping) {
        return Compiler.compile(Planner.plan(checked(mapping)));
    }

    /**
     * {@return a mapping, checked}
     *
     * @param mapping as for a rehearsal
     */
    public static CheckedMapping checked(String mapping) {
        Parser.Result parsed = Parser.parse(new SourceText("test.morphema", "morphema 1\n" + mapping));
        FormatRegistry formats = new FormatRegistry(List.of(new MemoryFormat()), List.of(new EventFormat()));
        Environment environment = new Environment(formats, FunctionTable.standard(), (from, path) -> {
            throw new AssertionError(path);
        });
        Checker.Result checked = Checker.check(List.of(parsed.tree()), environment);
        List<Problem> problems = new ArrayList<>(parsed.problems());
        problems.addAll(checked.problems());
        if (problems.stream().anyMatch(Problem::isError)) {
            throw new ProblemException(problems);
        }
        return checked.mapping();
    }

    /**
     * Gives a source its rows: first the names of the columns, then the cells of each, parted by
     * commas; empty ones are absent.
     */
    Rehearsal rows(String source, String... lines) {
        rows.put(source, List.of(lines));
        return this;
    }

    Rehearsal param(String name, String text) {
        params.put(name, TextValue.of(text));
        return this;
    }

    Rehearsal without(String target) {
        unwanted.add(target);
        return this;
    }

    /** Groups and sorts may hold so many bytes. */
    Rehearsal budget(long bytes) {
        budget = bytes;
        return this;
    }

    /**
     * The run goes on without some records.
     *
     * @param writersGoBack whether what is written can be taken back
     */
    Rehearsal rejecting(Rejects by, boolean writersGoBack) {
        rejects = by;
        marks = writersGoBack;
        return this;
    }

    /** Readers leave fields where they read them. */
    Rehearsal leaving() {
        leaves = true;
        return this;
    }

    /** Readers fail after so many records. */
    Rehearsal failAfter(int records) {
        failAfter = records;
        return this;
    }

    /** {@return all that happened, in one line} */
    String run() {
        return run(new ArrayList<>());
    }

    /** {@return all that happened, in one line}; what the run came to is added to a list. */
    String run(List<Run.Outcome> outcomes) {
        try {
            Run.Outcome outcome = Run.run(
                    program,
                    new RunSettings(
                            params,
                            Instant.EPOCH,
                            () -> new Random(1),
                            budget,
                            scratch,
                            RunWatch.NONE,
                            Limits.DEFAULT,
                            null,
                            rejects),
                    new MemoryReaders(),
                    new EventWriters());
            warnings = outcome.counts().warnings();
            outcomes.add(outcome);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return log();
    }

    /** {@return what happened so far} */
    String log() {
        return String.join(" ", log);
    }

    /** {@return the same, but only what was written} */
    String written() {
        run();
        return String.join(
                        " ",
                        log.stream()
                                .filter(event -> !event.matches("(open|read|end|close).*"))
                                .toList())
                .replaceAll("(?<=[\\[{]) | (?=[\\]}])", "");
    }

    /** {@return what was written of each document} */
    String documents() {
        run();
        return byDocument.toString();
    }

    List<Problem> warnings() {
        return warnings;
    }

    MemoryScratch scratch() {
        return scratch;
    }

    private final class MemoryReaders implements Readers {
        @Override
        public RecordReader open(int source, List<FieldName> path, Projection projection) {
            String name = program.mapping().sources().get(source).decl().name().text();
            log.add("open " + name + " " + projection);
            List<String> lines = rows.get(name);
            return new MemoryReader(lines, projection);
        }

        @Override
        public RecordReader openPassing(int source, List<FieldName> path, Projection projection) {
            return open(source, path, projection);
        }

        @Override
        public String nameOf(int source) {
            return program.mapping().sources().get(source).decl().name().text();
        }

        @Override
        public List<Value> examples(int source) {
            return List.of();
        }

        @Override
        public boolean isSmall(int source) {
            return false;
        }
    }

    private final class MemoryReader implements RecordReader {
        private final List<String> names;
        private final List<String> lines;
        private final Projection projection;
        private final Layout layout;
        private int at;
        /** Where fields are left, until the next record takes their place. */
        private final byte[] left = new byte[4096];

        private final FieldBytes.Row fields;

        MemoryReader(List<String> lines, Projection projection) {
            this.names = List.of(lines.get(0).split(","));
            this.lines = lines.subList(1, lines.size());
            this.projection = projection;
            this.layout = projection.keepsAll()
                    ? projection
                            .layout()
                            .withAll(names.stream().map(FieldName::of).toList())
                    : projection.layout();
            this.fields = new FieldBytes.Row(layout.size());
        }

        @Override
        public boolean isSequence() {
            return true;
        }

        /** What was left of the record before is another text from now on. */
        @Override
        public @Nullable Value next() throws IOException {
            Arrays.fill(left, (byte) 'x');
            if (at == lines.size()) {
                log.add("end");
                return null;
            }
            step();
            return record(at);
        }

        private void step() throws IOException {
            if (at == failAfter) {
                throw new IOException("the line is dead");
            }
            at++;
            log.add("read");
        }

        private @Nullable String cell(int row, int slot) {
            int column = names.indexOf(layout.name(slot).local());
            String[] cells = lines.get(row - 1).split(",", -1);
            return column < 0 || cells[column].isEmpty() ? null : cells[column];
        }

        private RecordValue record(int row) {
            @Nullable Value[] values = new Value[layout.size()];
            fields.beginPassing(left);
            int end = 0;
            for (int slot = 0; slot < values.length; slot++) {
                String cell = cell(row, slot);
                if (cell != null && leaves && cell.matches("\\p{ASCII}+")) {
                    byte[] ascii = cell.getBytes(StandardCharsets.US_ASCII);
                    System.arraycopy(ascii, 0, left, end, ascii.length);
                    fields.plain(slot, left, end, end + ascii.length);
                    end += ascii.length;
                } else {
                    values[slot] = cell == null ? null : TextValue.of(cell);
                }
            }
            return RecordValue.of(layout, values, fields.take(), new Origin("memory", row, row + 1), 0);
        }

        @Override
        public void close() {
            log.add("close");
        }
    }

    private final class EventWriters implements Writers {
        @Override
        public boolean wants(int target) {
            return !unwanted.contains(name(target));
        }

        private String name(int target) {
            return program.mapping().targets().get(target).decl().name().text();
        }

        @Override
        public TargetFormat.DocumentWriter open(int target, Writers.@Nullable Document document) {
            log.add(document == null ? name(target) + ":" : name(target) + " " + document.name() + ":");
            List<String> written = new ArrayList<>();
            byDocument.put(log.get(log.size() - 1), written);
            return new LoggingWriter(written);
        }
    }

    private final class LoggingWriter implements TargetFormat.DocumentWriter {
        /** What can be taken back. */
        private final List<String> sinceMark = new ArrayList<>();

        private final List<String> written;
        private boolean marked;

        LoggingWriter(List<String> written) {
            this.written = written;
        }

        @Override
        public void beginRecord() {
            add("{");
        }

        @Override
        public void endRecord() {
            add("}");
        }

        @Override
        public void beginList() {
            add("[");
        }

        @Override
        public void endList() {
            add("]");
        }

        @Override
        public void field(FieldName name) {
            add(name + "=");
        }

        @Override
        public void value(Value value) {
            add(value.toString());
        }

        @Override
        public void attribute(FieldName name, Value value) {
            add(name + "=" + value);
        }

        @Override
        public void text(Value value) {
            add("'" + value + "'");
        }

        @Override
        public boolean mark() {
            flush();
            marked = marks;
            return marks;
        }

        @Override
        public void rewind() {
            sinceMark.clear();
        }

        private void add(String event) {
            sinceMark.add(event);
            if (!marked) {
                flush();
            }
        }

        private void flush() {
            log.addAll(sinceMark);
            written.addAll(sinceMark);
            sinceMark.clear();
        }

        @Override
        public void finish() {
            flush();
            marked = false;
            add("done");
        }
    }

    /** What a run spills. */
    static final class MemoryScratch implements Scratch {
        private byte[] bytes = new byte[0];
        private long most;
        private boolean closed;

        @Override
        public void append(byte[] more, int from, int length) {
            int at = bytes.length;
            bytes = Arrays.copyOf(bytes, at + length);
            System.arraycopy(more, from, bytes, at, length);
            most = bytes.length;
        }

        @Override
        public long size() {
            return bytes.length;
        }

        @Override
        public void read(long position, byte[] into, int from, int length) {
            System.arraycopy(bytes, (int) position, into, from, length);
        }

        @Override
        public void close() {
            bytes = new byte[0];
            closed = true;
        }

        /** {@return how many bytes were spilled} */
        long most() {
            return most;
        }

        boolean isClosed() {
            return closed;
        }
    }

    private static final class MemoryFormat implements SourceFormat {
        @Override
        public String name() {
            return "memory";
        }

        @Override
        public List<OptionSpec> options() {
            return List.of();
        }

        @Override
        public Traits traits() {
            return new Traits(true, true, false);
        }

        @Override
        public RecordReader open(Input input, Projection projection, Options options) {
            throw new AssertionError("the run opens its own readers");
        }
    }

    private static final class EventFormat implements TargetFormat {
        @Override
        public String name() {
            return "events";
        }

        @Override
        public List<OptionSpec> options() {
            return List.of();
        }

        @Override
        public Traits traits() {
            return new Traits(Root.ANY, false, false);
        }

        @Override
        public DocumentWriter open(OutputStream out, Document document) {
            throw new AssertionError("the run opens its own writers");
        }
    }
}
