package dev.morphema;

import dev.morphema.engine.Run;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A folder of documents that waits as a temporary folder beside its place. In the end a folder that was not there appears
 * at once; in one that was there, the files are put into their places one after the other, and other files stay.
 */
final class StagedFolder extends StagedOutput {
    private final Path folder;
    private final Path temporary;
    private final MadeFolders made;
    private final FileChannel lock;
    private final DocumentNames names = new DocumentNames();
    private final List<Path> files = new ArrayList<>();
    private @Nullable OutputStream document;

    private StagedFolder(Path folder, Path temporary, MadeFolders made, FileChannel lock) {
        this.lock = lock;
        this.made = made;
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
        if (parent == null) {
            throw new ProblemException(Problem.error(Code.NOT_WRITTEN, folder + " cannot be an output folder."));
        }
        MadeFolders made = MadeFolders.to(parent);
        Leftovers.remove(parent);
        Path temporary = temporary(place);
        Files.createDirectory(temporary);
        FileChannel lock = FileChannel.open(
                temporary.resolve(Leftovers.LOCK), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        Leftovers.lock(lock);
        return new StagedFolder(place, temporary, made, lock);
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
    void close() throws IOException {
        if (document != null) {
            document.close();
            document = null;
        }
    }

    private void unlock() throws IOException {
        lock.close();
        Files.deleteIfExists(temporary.resolve(Leftovers.LOCK));
    }

    @Override
    void commit() throws IOException {
        if (!Files.exists(folder)) {
            unlock();
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
            made.remove();
        } catch (IOException e) {
            // the failure that led here is the one to be told
        }
    }

    private void delete() throws IOException {
        lock.close();
        if (Files.exists(temporary)) {
            Leftovers.delete(temporary);
        }
    }
}
