package dev.morphema;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Looks into folders that runs have written to. */
final class OutputFolder {
    private OutputFolder() {}

    /**
     * {@return all that is in a folder and in the folders in it, hidden things too, by relative
     * path}; of folders only those that are staged.
     */
    static Map<String, String> contents(Path folder) throws IOException {
        Map<String, String> contents = new TreeMap<>();
        try (Stream<Path> walk = Files.walk(folder)) {
            for (Path path : (Iterable<Path>) walk::iterator) {
                String name = folder.relativize(path).toString();
                if (Files.isRegularFile(path)) {
                    contents.put(name, Files.readString(path, StandardCharsets.ISO_8859_1));
                } else if (name.endsWith(".morphema-part")) {
                    contents.put(name, "a folder");
                }
            }
        }
        return contents;
    }
}
