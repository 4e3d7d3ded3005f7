package dev.morphema.output;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.FileSystemLoopException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Looks for what would keep outputs from their places, before anything is moved. Not thread-safe.
 */
final class Obstacles {
    private static final int MOST_LINKS = 40;

    private static final Set<PosixFilePermission> WRITE = EnumSet.of(
            PosixFilePermission.OWNER_WRITE, PosixFilePermission.GROUP_WRITE, PosixFilePermission.OTHERS_WRITE);

    /** Folders that were looked at. */
    private final Set<Path> good = new HashSet<>();

    /**
     * {@return the file that a path means in the end}: what a link leads to is written, not the
     * link, also if nothing is there yet
     */
    static Path followed(Path file) throws IOException {
        Path place = file.toAbsolutePath();
        for (int i = 0; Files.isSymbolicLink(place); i++) {
            if (i == MOST_LINKS) {
                throw new FileSystemLoopException(file.toString());
            }
            place = place.resolveSibling(Files.readSymbolicLink(place));
        }
        return Files.exists(place) ? place.toRealPath() : place.normalize();
    }

    /**
     * Looks at the place of a file.
     *
     * @param place links followed
     * @param within the folder that it must not leave, links followed; null if it may stand
     *     anywhere
     * @throws ProblemException if the place cannot be taken
     */
    void check(Path place, @Nullable Path within) throws IOException {
        Path folder = place.getParent();
        if (folder != null && good.add(folder)) {
            checkFolder(folder, place, within);
        }
        if (!Files.exists(place, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        if (Files.isDirectory(place)) {
            throw refused("A folder stands where an output is to be, and an output is a file.", place);
        }
        if (!Files.isRegularFile(place)) {
            throw refused("A document cannot take the place of a device or pipe.", place);
        }
        if (isReadOnly(place)) {
            throw refused("The output would replace a file that may only be read.", place);
        }
    }

    private static void checkFolder(Path folder, Path place, @Nullable Path within) throws IOException {
        Path there = folder;
        while (there.getParent() != null && !Files.exists(there, LinkOption.NOFOLLOW_LINKS)) {
            there = there.getParent();
        }
        if (!Files.isDirectory(there)) {
            throw refused("A file stands where a folder of outputs is to be.", there);
        }
        if (within != null && !there.toRealPath().startsWith(within)) {
            throw refused("A link leads out of the output folder, where no document may go.", place);
        }
        if (!Files.isWritable(there)) {
            throw refused("The folder of an output may not be written to.", there);
        }
    }

    /**
     * Also for an administrator, who may write to all files: who took the right to write away meant
     * it.
     */
    private static boolean isReadOnly(Path file) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(file, PosixFileAttributeView.class);
        if (view != null) {
            Set<PosixFilePermission> rights = EnumSet.copyOf(WRITE);
            rights.retainAll(view.readAttributes().permissions());
            if (rights.isEmpty()) {
                return true;
            }
        }
        return !Files.isWritable(file);
    }

    static ProblemException refused(String message, Path place) {
        return new ProblemException(Problem.error(Code.NOT_WRITTEN, message).withValue(place.toString()));
    }
}
