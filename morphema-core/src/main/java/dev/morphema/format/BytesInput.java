package dev.morphema.format;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.util.Objects;

/** Bytes that are at hand. */
record BytesInput(String name, byte[] bytes) implements Input {
    BytesInput {
        Objects.requireNonNull(bytes);
    }

    @Override
    public InputStream open() {
        return new ByteArrayInputStream(bytes);
    }

    @Override
    public boolean isRereadable() {
        return true;
    }

    @Override
    public long size() {
        return bytes.length;
    }
}
