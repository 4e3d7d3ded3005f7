package dev.morphema.output;

import dev.morphema.engine.Run;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.standard.StandardFormats;
import dev.morphema.value.FieldName;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Set;
import java.util.zip.GZIPInputStream;
import org.jspecify.annotations.Nullable;

/**
 * A file that goes on behind what is in it. The whole of it is written anew and takes the place of
 * the old one, so that it is never seen half; it is locked, so that no other run goes on with what
 * it was before.
 */
final class AppendedFile extends StagedOutput {
    private static final Set<String> FORMATS = Set.of("csv", "jsonl");

    private final Path place;
    private final StagedFile file;
    /** Holds the lock of the file that is there; null if there is none yet. */
    private @Nullable FileChannel old;

    private AppendedFile(Path place, StagedFile file) {
        this.place = place;
        this.file = file;
    }

    /** @param place links followed */
    static AppendedFile of(Path place) throws IOException {
        AppendedFile appended = new AppendedFile(place, StagedFile.of(place));
        try {
            appended.lock();
            return appended;
        } catch (IOException | RuntimeException e) {
            appended.discard();
            throw e;
        }
    }

    private void lock() throws IOException {
        try {
            old = FileChannel.open(place, StandardOpenOption.READ, StandardOpenOption.WRITE);
        } catch (NoSuchFileException e) {
            return;
        }
        boolean locked;
        try {
            locked = old.tryLock() != null;
        } catch (OverlappingFileLockException e) {
            locked = false;
        }
        if (!locked) {
            throw new ProblemException(Problem.error(Code.NOT_WRITTEN, "Another run appends to this file just now.")
                    .withValue(place.toString()));
        }
    }

    @Override
    DocumentWriter writer(Run.@Nullable Document name, TargetFormat format, Document document) throws IOException {
        if (!FORMATS.contains(format.name())) {
            throw new ProblemException(Problem.error(
                            Code.USAGE, "Documents in " + format.name() + " cannot be appended to, only csv and jsonl.")
                    .withHelp("without --append the file is written anew"));
        }
        boolean csv = format.name().equals("csv");
        boolean begun = old != null && old.size() > 0;
        if (begun && csv) {
            requireColumns(document);
        }
        if (begun) {
            copy(csv && document.options().text("line-end", "lf").equals("crlf") ? "\r\n" : "\n");
        }
        return format.open(file.bytes(name), begun ? continued(document) : document);
    }

    /** {@return the document without what stands at the beginning of a file only} */
    private static Document continued(Document document) {
        Options options = document.options().with("header", false).with("bom", false);
        return new Document(options, document.columns(), document.prefixes(), document.declared());
    }

    private InputStream content() throws IOException {
        InputStream bytes = Files.newInputStream(place);
        return place.toString().endsWith(".gz") ? new GZIPInputStream(bytes) : bytes;
    }

    /** What the new rows would stand under must be what they are. */
    private void requireColumns(Document document) throws IOException {
        Options written = document.options();
        if (!written.isOn("header", true)) {
            return;
        }
        Options read = Options.NONE.within(Limits.DEFAULT);
        for (String mark : List.of("delimiter", "quote", "encoding")) {
            if (written.text(mark).isPresent()) {
                read = read.with(mark, written.text(mark).get());
            }
        }
        List<String> columns;
        try (RecordReader reader = StandardFormats.source("csv").open(new Content(), Projection.everything(), read)) {
            reader.next();
            columns = reader.columns().stream().map(FieldName::local).toList();
        }
        if (!columns.equals(document.columns())) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITABLE,
                            "The file has other columns than the target: " + String.join(", ", columns) + ".")
                    .withValue(String.join(", ", document.columns()))
                    .withHelp("columns = [ … ] gives the target the columns of the file"));
        }
    }

    /** What is in the file so far. */
    private final class Content implements Input {
        @Override
        public String name() {
            return place.toString();
        }

        @Override
        public InputStream open() throws IOException {
            return content();
        }

        @Override
        public boolean isRereadable() {
            return true;
        }
    }

    private void copy(String lineEnd) throws IOException {
        OutputStream to = file.bytes(null);
        byte last = '\n';
        try (InputStream from = content()) {
            byte[] buffer = new byte[1 << 16];
            for (int read = from.read(buffer); read >= 0; read = from.read(buffer)) {
                to.write(buffer, 0, read);
                last = read > 0 ? buffer[read - 1] : last;
            }
        }
        if (last != '\n') {
            to.write(lineEnd.getBytes(StandardCharsets.US_ASCII));
        }
    }

    /** Another run may have made the file that was not there. */
    @Override
    void confirm() throws IOException {
        if (old == null && Files.exists(place)) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "Another run has made this file meanwhile; nothing is appended.")
                            .withValue(place.toString())
                            .withHelp("run it again"));
        }
    }

    @Override
    OutputStream bytes(Run.@Nullable Document document) {
        return file.bytes(document);
    }

    @Override
    List<Path> files() {
        return file.files();
    }

    @Override
    void close() throws IOException {
        file.close();
    }

    @Override
    List<Placed> placed() {
        return file.placed();
    }

    @Override
    void discard() {
        file.discard();
        try {
            if (old != null) {
                old.close();
            }
        } catch (IOException e) {
            // The lock goes with the program.
        }
    }
}
