package dev.morphema.formats;

import dev.morphema.format.Input;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.util.List;

/**
 * A document of which each read gives only some bytes: with few of them, whatever is in it is cut
 * anywhere.
 *
 * @param isRereadable whether readers may think that it can be read again
 * @param most how many bytes a read gives
 */
public record Pieces(byte[] document, boolean isRereadable, int most) implements Input {
    /** So few that all is cut, some, and so many that nothing is. */
    public static final List<Integer> SIZES = List.of(3, 17, 1 << 16);

    @Override
    public String name() {
        return "pieces";
    }

    @Override
    public InputStream open() {
        return new ByteArrayInputStream(document) {
            @Override
            public synchronized int read(byte[] bytes, int offset, int length) {
                return super.read(bytes, offset, Math.min(length, most));
            }
        };
    }
}
