package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file to be read. */
record FileInput(Path file) implements Input {
    @Override
    public String name() {
        return file.toString();
    }

    @Override
    public InputStream open() throws IOException {
        return Files.newInputStream(file);
    }

    /** A pipe gives its bytes only once. */
    @Override
    public boolean isRereadable() {
        return Files.isRegularFile(file);
    }
}
