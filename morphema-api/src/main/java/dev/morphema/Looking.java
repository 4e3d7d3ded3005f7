package dev.morphema;

import dev.morphema.engine.RunWatch;
import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.output.FileFaults;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ShapeWriter;
import dev.morphema.standard.InputGuess;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Looks into files: what format they have, and what is in them. Of use once; not thread-safe. */
final class Looking {
    /** Enough to tell a format and its marks. */
    private static final int HEAD = 1 << 16;

    private final FormatRegistry formats;
    private final Limits limits;
    private final long mostRecords;
    private final RunControl control;
    private final RunWatch watch;
    private final LearnedShape all = LearnedShape.detailed();
    private final Map<String, List<Path>> having = new LinkedHashMap<>();
    private long records;
    private boolean complete = true;
    private boolean sequence;

    Looking(FormatRegistry formats, Limits limits, long mostRecords, RunControl control) {
        this.control = control;
        this.watch = control.watch();
        this.formats = formats;
        this.limits = limits;
        this.mostRecords = mostRecords;
    }

    Looked look(List<Path> files) {
        files.forEach(Looking::requireFile);
        InputGuess guess = null;
        List<Path> filled = new ArrayList<>();
        List<Input> inputs = new ArrayList<>();
        files.forEach(file -> inputs.add(new FollowedInput(new FileInput(file, limits), control, limits)));
        for (int i = 0; i < inputs.size(); i++) {
            Path file = files.get(i);
            Input input = inputs.get(i);
            try {
                InputGuess own = guess(new FileInput(file, limits));
                guess = guess == null ? own : guess;
                refuseOther(guess, own, file);
                if (read(input, file, guess)) {
                    filled.add(file);
                }
            } catch (IOException e) {
                throw unreadable(file, e);
            }
        }
        if (guess == null) {
            throw new IllegalArgumentException("no file");
        }
        if (sequence) {
            all.learn(ListValue.EMPTY);
        }
        having.values().removeIf(some -> some.size() == filled.size());
        return new Looked(this, guess, all, records, complete, files, having);
    }

    /** {@return the first records of some files, which stay as they are} */
    List<Value> records(List<Path> files, InputGuess guess, int most) {
        SourceFormat format = formats.source(guess.format()).orElseThrow();
        Options options = guess.forReader().within(limits);
        List<Value> found = new ArrayList<>();
        for (Path file : files) {
            try (RecordReader reader = format.open(new FileInput(file, limits), Projection.everything(), options)) {
                if (!reader.isSequence()) {
                    found.add(RecordValue.detached(reader.whole()));
                    continue;
                }
                Value record = reader.next();
                while (record != null && found.size() < most) {
                    found.add(RecordValue.detached(record));
                    record = reader.next();
                }
            } catch (IOException e) {
                throw unreadable(file, e);
            }
        }
        return found;
    }

    /** {@return whether what was looked at is a sequence of records} */
    boolean isSequence() {
        return sequence;
    }

    private static void requireFile(Path file) {
        if (Files.notExists(file)) {
            throw new ProblemException(
                    Problem.error(Code.FILE_NOT_FOUND, "There is no such file.").withValue(file.toString()));
        }
    }

    private InputGuess guess(Input input) throws IOException {
        String name = input.name().toLowerCase(Locale.ROOT).replaceAll("\\.gz$", "");
        Optional<SourceFormat> named = formats.byEnding(name);
        if (named.isPresent()) {
            return new InputGuess(named.get().name(), Map.of());
        }
        try (InputStream bytes = input.open()) {
            return InputGuess.of(input.name(), bytes.readNBytes(HEAD));
        }
    }

    private static void refuseOther(InputGuess first, InputGuess own, Path file) {
        if (!first.format().equals(own.format())) {
            throw new ProblemException(Problem.error(
                            Code.USAGE,
                            "These files are not alike: the first is " + first.format() + ", this is " + own.format()
                                    + ".")
                    .withValue(file.toString())
                    .withHelp("look at each kind by itself"));
        }
    }

    /** Reads a file; says whether there was anything. */
    private boolean read(Input input, Path file, InputGuess guess) throws IOException {
        SourceFormat format = formats.source(guess.format()).orElseThrow();
        Options options = guess.forReader().within(limits);
        ShapeWriter learning = new ShapeWriter(all);
        long before = records;
        try (RecordReader reader = format.open(input, Projection.everything(), options)) {
            if (reader.isSequence()) {
                sequence = true;
                readRecords(reader, learning);
            } else if (records == mostRecords) {
                complete = false;
            } else {
                // However large a document is, no more of it is kept than what is open.
                reader.events(learning);
                records++;
            }
        }
        note(all, learning, "", file);
        return records > before;
    }

    private void readRecords(RecordReader reader, ShapeWriter learning) throws IOException {
        Value record = reader.next();
        learning.name(reader.columns());
        while (record != null && records < mostRecords) {
            learning.write(record);
            records++;
            watch.read(1);
            record = reader.next();
        }
        complete &= record == null;
    }

    private void note(LearnedShape shape, ShapeWriter learned, String path, Path file) {
        for (FieldName name : shape.names()) {
            LearnedShape field = shape.field(name);
            String below = path + "." + name;
            if (field != null && learned.hasMet(field)) {
                having.computeIfAbsent(below, p -> new ArrayList<>()).add(file);
                note(field, learned, below, file);
            }
        }
    }

    private static ProblemException unreadable(Path file, IOException e) {
        Code code = e instanceof NoSuchFileException ? Code.FILE_NOT_FOUND : Code.NOT_READABLE;
        return new ProblemException(
                Problem.error(code, "The file cannot be read: " + FileFaults.reason(e) + ".")
                        .withValue(file.toString())
                        .withHelp(Files.isDirectory(file) ? "a pattern takes the files in it: '" + file + "/*'" : null),
                e);
    }
}
