package dev.morphema.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Where files really are, links followed, also those that are not there yet. */
public final class RealPlace {
    private RealPlace() {}

    /**
     * {@return the file or folder itself if it is there, else the nearest of the folders that it
     * would be in}
     */
    static Path nearest(Path file) {
        Path there = file;
        while (there.getParent() != null && !Files.exists(there)) {
            there = there.getParent();
        }
        return there;
    }

    /**
     * {@return where a file is, or would be}
     *
     * @throws IOException if the folders on the way cannot be looked at
     */
    public static Path of(Path file) throws IOException {
        if (Files.exists(file)) {
            return file.toRealPath();
        }
        Path whole = file.toAbsolutePath().normalize();
        Path there = nearest(whole);
        return there.toRealPath().resolve(there.relativize(whole));
    }
}
