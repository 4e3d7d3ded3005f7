package dev.morphema;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What runs that were killed have left of their outputs. A run that goes on holds a lock of what it has staged; what nobody
 * holds is removed by the next run into the same folder.
 */
final class Leftovers {
    /** How the names of all end that is not in its place yet. */
    static final String SUFFIX = ".morphema-part";

    /** In a folder that waits, the file that is locked. */
    static final String LOCK = ".lock" + SUFFIX;

    private static final long YOUNG_SECONDS = 10;

    private Leftovers() {}

    /** Removes what was left in a folder; what cannot be looked at or removed stays. */
    static void remove(Path folder) {
        try (DirectoryStream<Path> found = Files.newDirectoryStream(folder, ".*" + SUFFIX)) {
            for (Path left : found) {
                if (isOld(left) && isLeft(left)) {
                    delete(left);
                }
            }
        } catch (IOException e) {
            // It disturbs nobody.
        }
    }

    /** What was made a moment ago may be about to be locked. */
    private static boolean isOld(Path staged) throws IOException {
        return Files.getLastModifiedTime(staged)
                .toInstant()
                .isBefore(Instant.now().minusSeconds(YOUNG_SECONDS));
    }

    private static boolean isLeft(Path staged) throws IOException {
        Path locked = Files.isDirectory(staged) ? staged.resolve(LOCK) : staged;
        if (!Files.exists(locked)) {
            return Files.isDirectory(staged);
        }
        try (FileChannel channel = FileChannel.open(locked, StandardOpenOption.WRITE)) {
            FileLock lock = lock(channel);
            return lock != null;
        }
    }

    /** {@return the lock of a file, or null if somebody holds it, also in this program} */
    static @Nullable FileLock lock(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    /** Deletes a file, or a folder with all that is in it. */
    static void delete(Path staged) throws IOException {
        List<Path> all;
        try (Stream<Path> walk = Files.walk(staged)) {
            all = walk.sorted(Comparator.reverseOrder()).toList();
        }
        for (Path path : all) {
            Files.deleteIfExists(path);
        }
    }
}
