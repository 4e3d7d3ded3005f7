package dev.morphema.output;

import dev.morphema.output.StagedOutput.Placed;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Puts all files of a run into their places, or none: obstacles are looked for before the first
 * move, a failure on the way is undone, and a journal lets the next run end what a kill or a loss
 * of power has cut. Not thread-safe.
 */
final class Commit {
    private static final String NOTHING_CHANGED =
            "The outputs cannot be put into their places, and nothing was changed: ";

    /** Makes last what is no file. */
    @FunctionalInterface
    interface Confirmation {
        void run() throws IOException;
    }

    private final List<Placed> placed = new ArrayList<>();
    private final Set<StagingFolder> stagings = new LinkedHashSet<>();
    /** Those that this commit made itself, for places on another file system than their output. */
    private final Map<FileStore, StagingFolder> extra = new HashMap<>();

    private final Map<Path, Optional<FileStore>> stores = new HashMap<>();
    private final Set<Path> made = new LinkedHashSet<>();

    private Commit() {}

    /**
     * Puts the files of outputs into their places.
     *
     * @param confirm makes last what is no file, when nothing is known to keep a file from its
     *     place
     * @throws ProblemException if one cannot be put there; then none is
     */
    static void of(Collection<StagedOutput> outputs, Confirmation confirm) throws IOException {
        Commit commit = new Commit();
        try {
            commit.prepare(outputs);
            confirm.run();
            commit.carryOut();
        } finally {
            commit.extra.values().forEach(StagingFolder::delete);
        }
    }

    private void prepare(Collection<StagedOutput> outputs) throws IOException {
        Obstacles obstacles = new Obstacles();
        for (StagedOutput output : outputs) {
            for (Placed file : output.placed()) {
                obstacles.check(file.place(), file.within());
                Placed near = near(file);
                if (Files.exists(near.place())) {
                    FileRights.keep(near.place(), near.staged());
                }
                placed.add(near);
                stagings.add(near.staging());
                findMissing(near.place().getParent());
            }
        }
    }

    private void findMissing(Path folder) {
        if (!made.contains(folder) && !Files.exists(folder, LinkOption.NOFOLLOW_LINKS)) {
            findMissing(folder.getParent());
            made.add(folder);
        }
    }

    /**
     * {@return the file, on the file system of its place}, which may be another one than that of
     * the output folder
     */
    private Placed near(Placed file) throws IOException {
        Path folder = file.place().getParent();
        Optional<FileStore> here = store(folder);
        if (here.isEmpty() || here.equals(store(file.staging().folder()))) {
            return file;
        }
        StagingFolder staging = extra.get(here.get());
        if (staging == null) {
            staging = StagingFolder.in(RealPlace.nearest(folder));
            extra.put(here.get(), staging);
        }
        Path staged = staging.resolve("file-" + placed.size());
        try (InputStream from = Files.newInputStream(file.staged());
                OutputStream to = DurableFile.of(staged)) {
            from.transferTo(to);
        }
        return new Placed(staged, file.place(), staging, file.within());
    }

    private Optional<FileStore> store(Path folder) {
        return stores.computeIfAbsent(folder, at -> {
            try {
                return Optional.of(Files.getFileStore(RealPlace.nearest(at)));
            } catch (IOException e) {
                // Some systems do not say; then a move tells.
                return Optional.empty();
            }
        });
    }

    private void carryOut() throws IOException {
        if (placed.isEmpty()) {
            return;
        }
        if (placed.size() == 1 && made.isEmpty()) {
            moveAlone(placed.get(0));
            return;
        }
        List<StagingFolder> folders = List.copyOf(stagings);
        List<Move> moves = new ArrayList<>();
        for (Placed file : placed) {
            Path old = file.staging().resolve("old-" + moves.size());
            Move move = Move.of(file.staged(), file.place(), old);
            move.keepOld();
            moves.add(move);
        }
        Journal journal = new Journal(folders.get(0), List.copyOf(made), moves);
        journal.announce(folders.subList(1, folders.size()));
        for (StagingFolder folder : folders) {
            DurableFile.flushAllNames(folder.path());
        }
        try {
            journal.begin();
            journal.finish();
        } catch (IOException e) {
            undo(journal, folders, e);
        }
    }

    /** One move is all or nothing by itself. */
    private static void moveAlone(Placed file) throws IOException {
        DurableFile.flushAllNames(file.staging().path());
        try {
            Files.move(file.staged(), file.place(), StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw failed(NOTHING_CHANGED, e);
        }
        try {
            DurableFile.flushNames(file.place().getParent());
        } catch (IOException e) {
            throw failed("The output is in its place, but perhaps not on the disk yet: ", e);
        }
    }

    private static void undo(Journal journal, List<StagingFolder> folders, IOException cause) {
        try {
            journal.undo();
        } catch (IOException e) {
            folders.forEach(StagingFolder::keep);
            cause.addSuppressed(e);
            throw failed(
                    "The outputs cannot be put into their places, and not all could be undone; the next run into "
                            + journal.at().folder() + " goes on with that: ",
                    cause);
        }
        throw failed(NOTHING_CHANGED, cause);
    }

    private static ProblemException failed(String message, IOException cause) {
        return new ProblemException(Problem.error(Code.NOT_WRITTEN, message + FileFaults.reason(cause) + "."), cause);
    }
}
