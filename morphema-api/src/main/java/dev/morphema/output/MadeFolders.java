package dev.morphema.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The folders that were made for an output; they go again if the run fails. Not thread-safe. */
final class MadeFolders {
    static final MadeFolders NONE = new MadeFolders(List.of());

    /** The innermost first. */
    private final List<Path> folders;

    private MadeFolders(List<Path> folders) {
        this.folders = folders;
    }

    /** {@return what was missing on the way to a folder, and is there now} */
    static MadeFolders to(Path folder) throws IOException {
        List<Path> missing = new ArrayList<>();
        for (Path at = folder; at != null && !Files.exists(at); at = at.getParent()) {
            missing.add(at);
        }
        MadeFolders made = new MadeFolders(missing);
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            made.remove();
            throw e;
        }
        return made;
    }

    /** Removes those that are empty. */
    void remove() {
        for (Path folder : folders) {
            try {
                Files.deleteIfExists(folder);
            } catch (IOException e) {
                // Something else stands in it by now.
                return;
            }
        }
    }
}
