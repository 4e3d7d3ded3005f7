package dev.morphema.store;

import java.util.ArrayList;
import java.util.List;

/**
 * Many short pieces of bytes, one behind the other in large arrays. Each begins at a multiple of
 * eight, so that a number of 32 bits tells its place even in 32 GB. Not thread-safe while pieces
 * are added; then safe for use by many threads.
 */
final class PackedBytes {
    private static final int CHUNK_BITS = 17;
    private static final int CHUNK = 1 << CHUNK_BITS;
    private static final int UNIT_BITS = 3;
    private static final int UNIT = 1 << UNIT_BITS;

    private final List<byte[]> chunks = new ArrayList<>();
    /** How much of the last chunk is taken. */
    private int filled = CHUNK;

    /**
     * {@return the place of a new piece of so many bytes}, all of them zero; some more behind them
     * may be looked at.
     */
    int add(int length) {
        int needed = length + UNIT;
        if (chunks.isEmpty() || chunks.get(chunks.size() - 1).length - filled < needed) {
            chunks.add(new byte[Math.max(CHUNK, needed)]);
            filled = 0;
        }
        int place = (chunks.size() - 1 << CHUNK_BITS - UNIT_BITS) + (filled >>> UNIT_BITS);
        filled = after(filled, length);
        return place;
    }

    /** {@return the array in which a piece lies} */
    byte[] array(int place) {
        return chunks.get(place >>> CHUNK_BITS - UNIT_BITS);
    }

    /** {@return where in its array a piece begins} */
    static int offset(int place) {
        return place << UNIT_BITS & CHUNK - 1;
    }

    /** {@return the arrays, in the order in which they were filled} */
    List<byte[]> arrays() {
        return chunks;
    }

    /** {@return where in its array the next piece begins, after one of so many bytes} */
    static int after(int offset, int length) {
        return offset + length + UNIT - 1 & -UNIT;
    }
}
