package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;

/** A file that a mapping names; whether it may read it shows when it is opened. */
record ReadableFile(FileInput file, ReadableFolders folders) implements Input {
    @Override
    public String name() {
        return file.name();
    }

    @Override
    public InputStream open() throws IOException {
        folders.check(file.file());
        return file.open();
    }

    @Override
    public boolean isRereadable() {
        return file.isRereadable();
    }

    @Override
    public long size() throws IOException {
        return file.size();
    }
}
