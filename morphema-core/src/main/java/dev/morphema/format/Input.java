package dev.morphema.format;

import java.io.IOException;
import java.io.InputStream;

/**
 * What is read, with a name for problems: bytes, or what one format alone knows how to read, such
 * as a connection to a database.
 */
public interface Input {
    /** {@return bytes at hand as an input, which can be read again}; they are not to be changed. */
    static Input of(String name, byte[] bytes) {
        return new BytesInput(name, bytes);
    }

    /** {@return what problems call this input, usually its file} */
    String name();

    /**
     * {@return the bytes; whoever calls this closes the stream}
     *
     * @throws IOException if they cannot be had
     */
    InputStream open() throws IOException;

    /**
     * {@return whether it can be opened more than once, so that the place of a fault can be looked
     * for}
     */
    default boolean isRereadable() {
        return false;
    }

    /** {@return whether there are bytes to be had; if not, {@link #open} fails} */
    default boolean hasBytes() {
        return true;
    }

    /** The size of an input that cannot be told before it is read. */
    long UNKNOWN_SIZE = -1;

    /**
     * {@return how many bytes there are, or {@link #UNKNOWN_SIZE}}
     *
     * @throws IOException if the input is not there
     */
    default long size() throws IOException {
        return UNKNOWN_SIZE;
    }
}
