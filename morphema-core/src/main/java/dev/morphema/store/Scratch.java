package dev.morphema.store;

import java.io.Closeable;
import java.io.IOException;

/** Where a run spills bytes that it cannot hold in memory. Not thread-safe. */
public interface Scratch extends Closeable {
    /**
     * Adds bytes at the end.
     *
     * @throws IOException if there is no room, or no place at all
     */
    void append(byte[] bytes, int from, int length) throws IOException;

    /** {@return how many bytes there are} */
    long size();

    /**
     * Reads bytes that were added before.
     *
     * @param position of the first of them
     * @throws IOException if they cannot be read
     */
    void read(long position, byte[] into, int from, int length) throws IOException;

    /** Forgets all bytes. */
    @Override
    void close() throws IOException;
}
