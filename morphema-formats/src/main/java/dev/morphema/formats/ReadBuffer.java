package dev.morphema.formats;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;

/**
 * How large a buffer to read with: for a short message a large one takes longer to make than the
 * message to read.
 */
public final class ReadBuffer {
    private static final int SMALLEST = 1 << 9;
    private static final int LARGEST = 1 << 16;
    /** A buffer in which a smaller part is left is low. */
    private static final int LOW = 16;

    private ReadBuffer() {}

    /**
     * {@return a number of bytes, a power of two: more than the input has, if that is known and not
     * too much}
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

    /**
     * {@return whether it is time to read on before a record begins: little is left, and more can
     * be had without waiting}
     *
     * <p>Then hardly a record is cut by the end of the buffer. That is no gain by itself; but Java
     * compiles what has never happened so that everything is slow again for a while when it first
     * does.
     *
     * @param left how many bytes of the buffer are left
     * @throws IOException if the stream cannot tell
     */
    public static boolean isLow(byte[] buffer, int left, InputStream in) throws IOException {
        return left < buffer.length / LOW && in.available() > 0;
    }
}
