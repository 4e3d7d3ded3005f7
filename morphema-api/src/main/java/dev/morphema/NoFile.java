package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.NoSuchFileException;

/**
 * What a mapping names by a text that no file of this system can be called by, so that there is
 * none.
 */
record NoFile(String name) implements Input, MappingOrigin {
    @Override
    public InputStream open() throws IOException {
        throw new NoSuchFileException(name);
    }

    @Override
    public String text() throws IOException {
        throw new NoSuchFileException(name);
    }

    @Override
    public Input file(String path) {
        return new NoFile(path);
    }

    @Override
    public MappingOrigin use(String path) {
        return new NoFile(path);
    }
}
