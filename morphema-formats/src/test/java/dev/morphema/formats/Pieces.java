package dev.morphema.formats;

import dev.morphema.format.Input;
import java.io.ByteArrayInputStream;
import java.io.InputStream;

/**
 * A document of which each read gives only a few bytes, so that whatever is in it is cut anywhere.
 *
 * @param isRereadable whether readers may think that it can be read again
 */
public record Pieces(byte[] document, boolean isRereadable) implements Input {
    @Override
    public String name() {
        return "pieces";
    }

    @Override
    public InputStream open() {
        return new ByteArrayInputStream(document) {
            @Override
            public synchronized int read(byte[] bytes, int offset, int length) {
                return super.read(bytes, offset, Math.min(length, 3));
            }
        };
    }
}
