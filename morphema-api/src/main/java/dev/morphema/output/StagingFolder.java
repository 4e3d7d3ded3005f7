package dev.morphema.output;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ThreadLocalRandom;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A hidden folder on the file system of the places of outputs, for what is not in its place yet. It
 * is locked while its run goes on; what nobody holds was left by a run that was killed, and the
 * next run into the same folder takes it over. Not thread-safe.
 */
final class StagingFolder {
    /** How the names of all such folders end. */
    static final String SUFFIX = ".morphema-part";

    private static final String LOCK = "lock";
    private static final int TRIES = 10;

    /**
     * The same for all runs in this program. Their folders are never tried for their locks: to
     * close a file that was opened a second time would release them on many systems.
     */
    private static final String PROGRAM =
            "." + Long.toHexString(ProcessHandle.current().pid()) + "-"
                    + Long.toHexString(ProcessHandle.current()
                            .info()
                            .startInstant()
                            .orElse(Instant.EPOCH)
                            .toEpochMilli())
                    + "-";

    /**
     * Those of this program that could not be removed when their runs ended, or are kept: nobody
     * holds them any more.
     */
    private static final Set<Path> ENDED = ConcurrentHashMap.newKeySet();

    private final Path path;
    private final FileChannel lock;
    private final MadeFolders made;
    private boolean kept;

    /** @param made folders that were made for it, and go with it if nothing else is in them */
    private StagingFolder(Path path, FileChannel lock, MadeFolders made) {
        this.path = path;
        this.lock = lock;
        this.made = made;
    }

    /**
     * {@return a new one in a folder, which is made}; what earlier runs have left there is finished
     * or removed before
     */
    static StagingFolder in(Path folder) throws IOException {
        MadeFolders made = MadeFolders.to(folder);
        try {
            Recovery.in(folder);
            return in(folder, made);
        } catch (IOException e) {
            made.remove();
            throw e;
        }
    }

    private static StagingFolder in(Path folder, MadeFolders made) throws IOException {
        for (int i = 1; ; i++) {
            Path path = folder.resolve(
                    PROGRAM + Long.toHexString(ThreadLocalRandom.current().nextLong()) + SUFFIX);
            try {
                Files.createDirectory(path);
                FileChannel lock =
                        FileChannel.open(path.resolve(LOCK), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                if (isLocked(lock)) {
                    return new StagingFolder(path, lock, made);
                }
                lock.close();
            } catch (NoSuchFileException | FileAlreadyExistsException e) {
                // Another run has just taken it for one that was left.
                if (i == TRIES) {
                    throw e;
                }
            } catch (IOException e) {
                remove(path);
                throw e;
            }
        }
    }

    /** {@return one that was left by a run that was killed, or null if its run may go on still} */
    static @Nullable StagingFolder left(Path path) throws IOException {
        boolean isHeldHere = path.getFileName().toString().startsWith(PROGRAM) && !ENDED.remove(path);
        if (isHeldHere || !Files.isDirectory(path)) {
            return null;
        }
        FileChannel lock;
        try {
            lock = FileChannel.open(path.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        } catch (AccessDeniedException | NoSuchFileException e) {
            // It is somebody else's, or another run has just removed it.
            return null;
        }
        if (isLocked(lock)) {
            return new StagingFolder(path, lock, MadeFolders.NONE);
        }
        lock.close();
        return null;
    }

    private static boolean isLocked(FileChannel channel) throws IOException {
        try {
            return channel.tryLock() != null;
        } catch (OverlappingFileLockException e) {
            return false;
        }
    }

    Path path() {
        return path;
    }

    Path resolve(String name) {
        return path.resolve(name);
    }

    /** {@return the folder that this stands in} */
    Path folder() {
        return path.getParent();
    }

    /** Leaves all that is here to the next run, even if this is deleted. */
    void keep() {
        kept = true;
    }

    /**
     * Removes it with all that is in it, unless it is to be kept; what cannot be removed is left to
     * the next run.
     */
    void delete() {
        if (!kept) {
            deleteQuietly(path);
        }
        try {
            lock.close();
        } catch (IOException e) {
            // The system lets it go when the program ends.
        }
        endHere(path);
        made.remove();
    }

    private static void remove(Path folder) {
        deleteQuietly(folder);
        endHere(folder);
    }

    /** Lets another run of this program take over what is still there. */
    private static void endHere(Path folder) {
        if (Files.exists(folder)) {
            ENDED.add(folder);
        }
    }

    private static void deleteQuietly(Path folder) {
        Path lock = folder.resolve(LOCK);
        try (Stream<Path> walk = Files.walk(folder)) {
            List<Path> all = walk.sorted(Comparator.reverseOrder())
                    .filter(path -> !path.equals(lock) && !path.equals(folder))
                    .toList();
            for (Path path : all) {
                Files.deleteIfExists(path);
            }
            // What is locked goes last, so that nobody takes over a folder that is half removed.
            Files.deleteIfExists(lock);
            Files.deleteIfExists(folder);
        } catch (IOException | UncheckedIOException e) {
            // It disturbs nobody, and the next run tries again.
        }
    }
}
