package dev.morphema.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;

/** Who owns a file and who may do what with it, on systems that know this (POSIX). */
final class FileRights {
    private FileRights() {}

    /**
     * Gives what is staged the owner, group and mode of the file that it replaces.
     *
     * @throws dev.morphema.problem.ProblemException if the owner or group would change
     */
    static void keep(Path place, Path staged) throws IOException {
        PosixFileAttributeView from = Files.getFileAttributeView(place, PosixFileAttributeView.class);
        PosixFileAttributeView to = Files.getFileAttributeView(staged, PosixFileAttributeView.class);
        if (from == null || to == null) {
            return;
        }
        PosixFileAttributes old = from.readAttributes();
        PosixFileAttributes made = to.readAttributes();
        try {
            if (!made.owner().equals(old.owner())) {
                to.setOwner(old.owner());
            }
            if (!made.group().equals(old.group())) {
                to.setGroup(old.group());
            }
        } catch (IOException e) {
            throw Obstacles.refused(
                    "The output would replace a file of " + old.owner().getName() + ", group "
                            + old.group().getName() + ", and could not leave it theirs.",
                    place);
        }
        if (!made.permissions().equals(old.permissions())) {
            to.setPermissions(old.permissions());
        }
    }
}
