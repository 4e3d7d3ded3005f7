package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A mapping in a file, or a text that belongs into a folder. */
final class FolderOrigin implements MappingOrigin {
    private final String name;
    private final @Nullable Path file;
    private final @Nullable String text;
    private final Path folder;
    private final Set<Path> filesRead;

    FolderOrigin(Path file) {
        this(file, new LinkedHashSet<>());
    }

    /** @param filesRead takes what is read, also of mappings that use this one */
    private FolderOrigin(Path file, Set<Path> filesRead) {
        filesRead.add(file);
        this.filesRead = filesRead;
        this.name = file.toString();
        this.file = file;
        this.text = null;
        Path parent = file.getParent();
        this.folder = parent == null ? Path.of("") : parent;
    }

    FolderOrigin(String name, String text, Path folder) {
        this.name = name;
        this.file = null;
        this.text = text;
        this.folder = folder;
        this.filesRead = new LinkedHashSet<>();
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public String text() throws IOException {
        return text != null ? text : file != null ? Files.readString(file) : "";
    }

    @Override
    public Input file(String path) {
        Path place = place(path);
        return place == null ? new NoFile(path) : read(place);
    }

    private Input read(Path place) {
        filesRead.add(place);
        return new FileInput(place);
    }

    @Override
    public Set<Path> filesRead() {
        return Set.copyOf(filesRead);
    }

    @Override
    public List<Input> files(String pattern) {
        if (place(pattern) == null) {
            return List.of(new NoFile(pattern));
        }
        return FilePattern.files(folder, pattern).stream().map(this::read).toList();
    }

    @Override
    public MappingOrigin use(String path) {
        Path place = place(path);
        return place == null ? new NoFile(path) : new FolderOrigin(place, filesRead);
    }

    /** {@return where a file is that the mapping names, or null if no file of this system can be called so} */
    private @Nullable Path place(String path) {
        try {
            return folder.resolve(path);
        } catch (InvalidPathException e) {
            return null;
        }
    }
}
