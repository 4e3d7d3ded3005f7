package dev.morphema.output;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import org.jspecify.annotations.Nullable;

/** Keeps other runs from changing a file that is there. Not thread-safe. */
final class FileLock implements AutoCloseable {
    private final FileChannel file;

    private FileLock(FileChannel file) {
        this.file = file;
    }

    /**
     * {@return the lock of a file, or null if there is none}
     *
     * @param taken what is said if another run has it
     * @throws ProblemException if another run has it, or has put another file in its place
     *     meanwhile
     */
    static @Nullable FileLock of(Path place, String taken) throws IOException {
        FileChannel file;
        Object before;
        try {
            before = identity(place);
            file = FileChannel.open(place, StandardOpenOption.READ, StandardOpenOption.WRITE);
        } catch (NoSuchFileException e) {
            return null;
        }
        if (isLocked(file) && before.equals(identity(place))) {
            return new FileLock(file);
        }
        file.close();
        throw new ProblemException(Problem.error(Code.NOT_WRITTEN, taken)
                .withValue(place.toString())
                .withHelp("run it again"));
    }

    private static boolean isLocked(FileChannel file) throws IOException {
        try {
            return file.tryLock() != null;
        } catch (OverlappingFileLockException e) {
            return false;
        }
    }

    /** The file that is opened may be one that another run has just put another in the place of. */
    private static Object identity(Path place) throws IOException {
        Object key = Files.readAttributes(place, BasicFileAttributes.class).fileKey();
        return key == null ? place : key;
    }

    /** {@return whether the file has nothing in it} */
    boolean isEmpty() throws IOException {
        return file.size() == 0;
    }

    @Override
    public void close() {
        try {
            file.close();
        } catch (IOException e) {
            // The lock goes with the program.
        }
    }
}
