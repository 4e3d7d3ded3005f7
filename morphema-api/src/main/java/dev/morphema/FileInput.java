package dev.morphema;

import dev.morphema.format.GrowingStream;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import java.io.BufferedInputStream;
import java.io.FileInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;

/** A file to be read; one whose name ends in .gz is decompressed (RFC 1952). */
record FileInput(Path file, Limits limits) implements Input {
    FileInput(Path file) {
        this(file, Limits.DEFAULT);
    }

    @Override
    public String name() {
        return file.toString();
    }

    @Override
    public InputStream open() throws IOException {
        if (Files.isDirectory(file)) {
            throw new IOException("this is a folder, not a file: " + file);
        }
        if (Files.notExists(file)) {
            throw new NoSuchFileException(file.toString());
        }
        InputStream bytes = isRereadable() ? Files.newInputStream(file) : pipe();
        return file.toString().endsWith(".gz") ? GrowingStream.of(name(), bytes, limits) : bytes;
    }

    /** A pipe has no position, which the streams of files ask for. */
    private InputStream pipe() throws IOException {
        return new BufferedInputStream(new FileInputStream(file.toFile()));
    }

    /** A pipe gives its bytes only once. */
    @Override
    public boolean isRereadable() {
        return Files.isRegularFile(file);
    }

    @Override
    public long size() throws IOException {
        return isRereadable() && !file.toString().endsWith(".gz") ? Files.size(file) : UNKNOWN_SIZE;
    }
}
