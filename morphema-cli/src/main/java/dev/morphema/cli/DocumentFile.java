package dev.morphema.cli;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.GZIPInputStream;

/** A file, which is decompressed if its name says so. */
record DocumentFile(Path file) implements Input {
    @Override
    public String name() {
        return file.toString();
    }

    @Override
    public InputStream open() throws IOException {
        InputStream bytes = Files.newInputStream(file);
        return name().endsWith(".gz") ? new GZIPInputStream(bytes) : bytes;
    }

    @Override
    public boolean isRereadable() {
        return true;
    }
}
