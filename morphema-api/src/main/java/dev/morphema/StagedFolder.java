package dev.morphema;

import dev.morphema.engine.Run;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A folder of documents that waits as a temporary folder beside its place. In the end a folder that was not there appears
 * at once; in one that was there, the files are put into their places one after the other, and other files stay.
 */
final class StagedFolder extends StagedOutput {
    private final Path folder;
    private final Path temporary;
    private final DocumentNames names = new DocumentNames();
    private final List<Path> files = new ArrayList<>();
    private @Nullable OutputStream document;

    private StagedFolder(Path folder, Path temporary) {
        this.folder = folder;
        this.temporary = temporary;
    }

    static StagedFolder of(Path folder) throws IOException {
        Path place = Files.exists(folder)
                ? folder.toRealPath()
                : folder.toAbsolutePath().normalize();
        if (Files.exists(place) && !Files.isDirectory(place)) {
            throw new ProblemException(Problem.error(
                    Code.NOT_WRITTEN, folder + " is a file; the output of a target of many documents is a folder."));
        }
        Path parent = place.getParent();
        if (parent == null || !Files.isDirectory(parent)) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITTEN, "There is no folder in which the output folder " + folder + " can be.")
                    .withHelp("make the folder around it first"));
        }
        Path temporary = temporary(place);
        Files.createDirectory(temporary);
        return new StagedFolder(place, temporary);
    }

    @Override
    boolean isOfManyDocuments() {
        return true;
    }

    @Override
    OutputStream bytes(Run.@Nullable Document next) throws IOException {
        close();
        names.take(Objects.requireNonNull(next));
        Path file = Path.of(next.name());
        if (file.getNameCount() > 1) {
            Files.createDirectories(temporary.resolve(file).getParent());
        }
        files.add(file);
        document = new BufferedOutputStream(Files.newOutputStream(temporary.resolve(file)), 1 << 14);
        return document;
    }

    @Override
    List<Path> files() {
        return files.stream().map(folder::resolve).toList();
    }

    @Override
    Object place() {
        return folder;
    }

    @Override
    void close() throws IOException {
        if (document != null) {
            document.close();
            document = null;
        }
    }

    @Override
    void commit() throws IOException {
        if (!Files.exists(folder)) {
            replace(temporary, folder);
            return;
        }
        for (Path file : files) {
            if (Files.isDirectory(folder.resolve(file))) {
                throw new IOException("there is a folder where the document " + file + " is to be");
            }
        }
        for (Path file : files) {
            Path place = folder.resolve(file);
            Files.createDirectories(place.getParent());
            replace(temporary.resolve(file), place);
        }
        delete();
    }

    @Override
    void discard() {
        try {
            close();
            delete();
        } catch (IOException e) {
            // the failure that led here is the one to be told
        }
    }

    private void delete() throws IOException {
        if (!Files.exists(temporary)) {
            return;
        }
        try (Stream<Path> all = Files.walk(temporary)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }
}
