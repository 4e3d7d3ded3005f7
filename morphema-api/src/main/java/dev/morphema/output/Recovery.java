package dev.morphema.output;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Ends what runs that were killed have begun: a commit is finished or undone, and what was staged
 * is removed.
 */
final class Recovery {
    private Recovery() {}

    /**
     * Looks for what was left in a folder.
     *
     * @throws IOException if a commit can be neither finished nor undone
     */
    static void in(Path folder) throws IOException {
        for (Path found : stagingFolders(folder)) {
            StagingFolder left = StagingFolder.left(found);
            if (left != null) {
                end(left);
            }
        }
    }

    private static List<Path> stagingFolders(Path folder) throws IOException {
        List<Path> found = new ArrayList<>();
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder, ".*" + StagingFolder.SUFFIX)) {
            all.forEach(found::add);
        } catch (AccessDeniedException e) {
            // A folder that may only be written to keeps what is left.
            return List.of();
        } catch (DirectoryIteratorException e) {
            throw e.getCause();
        }
        return found;
    }

    private static void end(StagingFolder left) throws IOException {
        boolean ended = false;
        try {
            Path journal = Journal.place(left);
            if (journal.equals(left.path())) {
                Journal.resume(left);
                ended = true;
            } else {
                ended = endElsewhere(journal);
            }
        } finally {
            if (!ended) {
                left.keep();
            }
            left.delete();
        }
    }

    /**
     * {@return whether nobody needs any more what is staged here for a commit whose journal is in
     * another folder}
     */
    private static boolean endElsewhere(Path journal) throws IOException {
        if (!Files.exists(journal)) {
            return true;
        }
        StagingFolder other = StagingFolder.left(journal);
        if (other == null) {
            // Another run is ending it just now.
            return false;
        }
        end(other);
        return true;
    }
}
