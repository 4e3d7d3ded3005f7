package dev.morphema.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/**
 * One step of a commit: what is staged comes to its place. Whether it was done shows on the disk,
 * so that it can be finished or undone whenever a commit was cut.
 *
 * @param staged a file or folder, which is there until it is moved
 * @param place where it is to be
 * @param old where another name, or a copy, of what stood at the place is; nothing is there if
 *     nothing stood there
 * @param found what stood at the place before, as {@link #stamp} tells it
 */
record Move(Path staged, Path place, Path old, String found) {
    private static final String NOTHING = "-";

    /** {@return a move from where things are now} */
    static Move of(Path staged, Path place, Path old) throws IOException {
        return new Move(staged, place, old, stamp(place));
    }

    boolean replacesSomething() {
        return !found.equals(NOTHING);
    }

    /** {@return what tells whether a place has been changed since} */
    private static String stamp(Path place) throws IOException {
        return Files.exists(place, LinkOption.NOFOLLOW_LINKS)
                ? Files.getLastModifiedTime(place).toMillis() + "/" + (Files.isDirectory(place) ? 0 : Files.size(place))
                : NOTHING;
    }

    /** {@return whether somebody else has changed the place while it was not done} */
    boolean isOvertaken() throws IOException {
        return Files.exists(staged) && !stamp(place).equals(found);
    }

    /** Keeps what stands at the place. */
    void keepOld() throws IOException {
        if (!replacesSomething()) {
            return;
        }
        try {
            Files.createLink(old, place);
        } catch (IOException | UnsupportedOperationException e) {
            Files.copy(place, old, StandardCopyOption.COPY_ATTRIBUTES);
        }
    }

    /** Brings what is staged to its place; does nothing if it is there. */
    void finish() throws IOException {
        if (Files.exists(staged)) {
            Files.move(staged, place, StandardCopyOption.ATOMIC_MOVE);
        }
    }

    /** Brings back what stood at the place; does nothing if it was not moved, or is back. */
    void undo() throws IOException {
        if (Files.exists(staged)) {
            return;
        }
        if (!replacesSomething()) {
            Files.move(place, staged, StandardCopyOption.ATOMIC_MOVE);
        } else if (Files.exists(old)) {
            Files.move(old, place, StandardCopyOption.ATOMIC_MOVE);
        }
    }
}
