package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A document that is put into another one, which is in a file. The whole of that is written anew
 * and takes the place of the old one, of which a copy is kept beside it; the file is locked, so
 * that no other run puts something into what it was before.
 */
final class MergedFile extends StagedOutput {
    /** What the name of the copy ends with. */
    static final String COPY = ".bak";

    private final Path place;
    private final Input content;
    private final Insertion insertion;
    private final FileLock lock;
    private final ByteArrayOutputStream part = new ByteArrayOutputStream();
    private @Nullable TargetFormat format;
    private @Nullable StagedFile merged;
    private @Nullable StagedFile copy;

    private MergedFile(Path place, Input content, Insertion insertion, FileLock lock) {
        this.place = place;
        this.content = content;
        this.insertion = insertion;
        this.lock = lock;
    }

    /**
     * @param place links followed
     * @param content what is in it
     */
    static MergedFile of(Path place, Input content, Insertion insertion) throws IOException {
        FileLock lock = FileLock.of(place, "Another run changes this file just now.");
        if (lock == null) {
            throw new ProblemException(
                    Problem.error(Code.NOT_READABLE, "There is no such file that something can be put into.")
                            .withValue(content.name())
                            .withHelp("--out writes a new file"));
        }
        return new MergedFile(place, content, insertion, lock);
    }

    @Override
    DocumentWriter writer(Writers.@Nullable Document name, TargetFormat format, Document document) throws IOException {
        this.format = format;
        return format.open(part, document);
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        return part;
    }

    @Override
    boolean isPart() {
        return true;
    }

    @Override
    List<Path> files() {
        return List.of(place, copyOf(place));
    }

    private static Path copyOf(Path place) {
        return place.resolveSibling(place.getFileName() + COPY);
    }

    @Override
    void close() throws IOException {
        if (merged != null) {
            return;
        }
        TargetFormat target = Objects.requireNonNull(format);
        byte[] whole = target.inserted(content, part.toByteArray(), insertion);
        if (whole == null) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Documents in " + target.name() + " are not put into others.")
                            .withHelp("json, yaml and xml can; --append goes on behind csv, jsonl and fixed"));
        }
        copy = StagedFile.of(copyOf(place));
        Files.copy(place, copy.bytes(null));
        copy.close();
        merged = StagedFile.of(place);
        merged.bytes(null).write(whole);
        merged.close();
    }

    @Override
    List<Placed> placed() {
        List<Placed> placed = new ArrayList<>();
        placed.addAll(Objects.requireNonNull(copy).placed());
        placed.addAll(Objects.requireNonNull(merged).placed());
        return placed;
    }

    @Override
    void discard() {
        if (copy != null) {
            copy.discard();
        }
        if (merged != null) {
            merged.discard();
        }
        lock.close();
    }
}
