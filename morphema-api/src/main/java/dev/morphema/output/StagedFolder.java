package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A folder of documents. They wait in a hidden folder: in the output folder if this is there, so
 * that they are on its file system, else beside it, and then the whole folder appears at once.
 * Other files of the folder stay.
 */
final class StagedFolder extends StagedOutput {
    private final Path folder;
    private final StagingFolder staging;
    private final Path documents;
    private final DocumentNames names = new DocumentNames();
    private final List<Path> files = new ArrayList<>();
    private @Nullable OutputStream document;

    private StagedFolder(Path folder, StagingFolder staging) throws IOException {
        this.folder = folder;
        this.staging = staging;
        this.documents = Files.createDirectory(staging.resolve("documents"));
    }

    /** @param folder links followed */
    static StagedFolder of(Path folder) throws IOException {
        if (Files.exists(folder) && !Files.isDirectory(folder)) {
            throw Obstacles.refused("A file stands where the folder of a target of many documents is to be.", folder);
        }
        Path parent = folder.getParent();
        // The folder itself may be a file system, and its parent may be closed to us.
        Path beside = parent == null || Files.exists(folder) ? folder : parent;
        new Obstacles().check(beside.resolve("any"), null);
        StagingFolder staging = StagingFolder.in(beside);
        try {
            return new StagedFolder(folder, staging);
        } catch (IOException e) {
            staging.delete();
            throw e;
        }
    }

    @Override
    public boolean isOfManyDocuments() {
        return true;
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document next) throws IOException {
        close();
        names.take(Objects.requireNonNull(next));
        Path file = folder.getFileSystem().getPath(next.name());
        files.add(file);
        Path staged = documents.resolve(file);
        try {
            Files.createDirectories(staged.getParent());
            document = DurableFile.of(staged, file);
        } catch (FileSystemException e) {
            throw new ProblemException(
                    Problem.error(
                                    Code.DOCUMENT_NAME,
                                    "The file of this document cannot be made: " + FileFaults.reason(e) + ".")
                            .withValue(next.name()),
                    e);
        }
        return document;
    }

    @Override
    List<Path> files() {
        return files.stream().map(folder::resolve).toList();
    }

    @Override
    void close() throws IOException {
        if (document != null) {
            OutputStream ended = document;
            document = null;
            ended.close();
        }
    }

    @Override
    List<Placed> placed() throws IOException {
        if (!Files.exists(folder)) {
            return List.of(new Placed(documents, folder, staging, null));
        }
        List<Placed> placed = new ArrayList<>();
        for (Path file : files) {
            placed.add(new Placed(documents.resolve(file), Obstacles.followed(folder.resolve(file)), staging, folder));
        }
        return placed;
    }

    @Override
    void discard() {
        try {
            close();
        } catch (IOException e) {
            // the failure that led here is the one to be told
        }
        staging.delete();
    }
}
