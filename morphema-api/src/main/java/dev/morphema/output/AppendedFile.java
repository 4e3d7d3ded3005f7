package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.Input;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A file that goes on behind what is in it. The whole of it is written anew and takes the place of
 * the old one, so that it is never seen half; it is locked, so that no other run goes on with what
 * it was before.
 */
final class AppendedFile extends StagedOutput {
    private static final Map<String, String> LINE_ENDS = Map.of("lf", "\n", "crlf", "\r\n", "none", "");

    private final Path place;
    private final Input content;
    private final StagedFile file;
    /** The lock of the file that is there; null if there is none yet. */
    private @Nullable FileLock old;

    private AppendedFile(Path place, Input content, StagedFile file) {
        this.place = place;
        this.content = content;
        this.file = file;
    }

    /**
     * @param place links followed
     * @param content what is in it so far
     */
    static AppendedFile of(Path place, Input content) throws IOException {
        AppendedFile appended = new AppendedFile(place, content, StagedFile.of(place));
        try {
            appended.old = FileLock.of(place, "Another run appends to this file just now.");
            return appended;
        } catch (IOException | RuntimeException e) {
            appended.discard();
            throw e;
        }
    }

    @Override
    DocumentWriter writer(Writers.@Nullable Document name, TargetFormat format, Document document) throws IOException {
        if (old == null || old.isEmpty()) {
            return format.open(file.bytes(name), document);
        }
        Document continued = format.continued(content, document);
        if (continued == null) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Documents in " + format.name() + " cannot be appended to.")
                            .withHelp("csv, jsonl and fixed can; without --append the file is written anew"));
        }
        copy(LINE_ENDS.get(document.options().text("line-end", "lf")));
        return format.open(file.bytes(name), continued);
    }

    private void copy(String lineEnd) throws IOException {
        OutputStream to = file.bytes(null);
        byte last = '\n';
        try (InputStream from = content.open()) {
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
    OutputStream bytes(Writers.@Nullable Document document) {
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
        if (old != null) {
            old.close();
        }
    }
}
