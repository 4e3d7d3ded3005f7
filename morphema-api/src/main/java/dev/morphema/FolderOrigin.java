package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A mapping in a file, or a text that belongs into a folder. */
final class FolderOrigin implements MappingOrigin {
    private final String name;
    private final @Nullable Path file;
    private final @Nullable String text;
    private final boolean isUsed;
    private final Path folder;
    private final ReadableFolders readable;
    private final Set<Path> filesRead;

    /** @param allowed folders that the mapping may read of, beside its own */
    FolderOrigin(Path file, List<Path> allowed) {
        this(file, ReadableFolders.of(folderOf(file), allowed), false, new LinkedHashSet<>());
    }

    /**
     * @param isUsed whether another mapping names it
     * @param filesRead takes what is read, also of mappings that use this one
     */
    private FolderOrigin(Path file, ReadableFolders readable, boolean isUsed, Set<Path> filesRead) {
        filesRead.add(file);
        this.filesRead = filesRead;
        this.name = file.toString();
        this.file = file;
        this.text = null;
        this.isUsed = isUsed;
        this.readable = readable;
        this.folder = folderOf(file);
    }

    /** @param allowed folders that the mapping may read of, beside the one it is said to be in */
    FolderOrigin(String name, String text, Path folder, List<Path> allowed) {
        this.name = name;
        this.file = null;
        this.text = text;
        this.isUsed = false;
        this.folder = folder;
        this.readable = ReadableFolders.of(folder, allowed);
        this.filesRead = new LinkedHashSet<>();
    }

    private static Path folderOf(Path file) {
        Path parent = file.getParent();
        return parent == null ? Path.of("") : parent;
    }

    @Override
    public Object identity() throws IOException {
        if (file == null) {
            return name;
        }
        if (isUsed) {
            readable.checkPlace(file);
        }
        return file.toRealPath();
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public String text() throws IOException {
        if (file == null) {
            return Objects.requireNonNull(text);
        }
        return isUsed ? readable.mapping(file) : ReadableFolders.text(file);
    }

    @Override
    public Input file(String path) {
        Path place = place(path);
        return place == null ? new NoFile(path) : read(place);
    }

    private Input read(Path place) {
        filesRead.add(place);
        return new ReadableFile(new FileInput(place), readable);
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
        if (FilePattern.isPattern(pattern)) {
            try {
                readable.checkWithin(FilePattern.start(folder, pattern));
            } catch (IOException e) {
                return List.of(new NoFile(pattern));
            }
        }
        return FilePattern.files(folder, pattern).stream().map(this::read).toList();
    }

    @Override
    public MappingOrigin use(String path) {
        Path place = place(path);
        return place == null ? new NoFile(path) : new FolderOrigin(place, readable, true, filesRead);
    }

    /**
     * {@return where a file is that the mapping names, or null if no file of this system can be
     * called so}
     */
    private @Nullable Path place(String path) {
        try {
            return folder.resolve(path);
        } catch (InvalidPathException e) {
            return null;
        }
    }
}
