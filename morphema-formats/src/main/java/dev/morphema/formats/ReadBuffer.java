package dev.morphema.formats;

import dev.morphema.format.Input;
import java.io.IOException;

/** How large a buffer to read with: for a short message a large one takes longer to make than the message to read. */
public final class ReadBuffer {
    private static final int SMALLEST = 1 << 9;
    private static final int LARGEST = 1 << 16;

    private ReadBuffer() {}

    /**
     * {@return a number of bytes, a power of two: more than the input has, if that is known and not too much}
     *
     * @throws IOException if the input cannot tell its size
     */
    public static int size(Input input) throws IOException {
        long bytes = input.size();
        if (bytes == Input.UNKNOWN_SIZE || bytes >= LARGEST) {
            return LARGEST;
        }
        return Math.max(SMALLEST, Integer.highestOneBit((int) bytes) * 2);
    }
}
