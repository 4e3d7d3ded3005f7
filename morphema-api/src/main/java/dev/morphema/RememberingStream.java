package dev.morphema;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * A stream that can be read only once, and remembers the last bytes of it, so that the line of a
 * problem can be shown. Not thread-safe.
 */
final class RememberingStream extends FilterInputStream {
    private static final int REMEMBERED = 1 << 16;

    /** The last bytes, as a ring. */
    private final byte[] last = new byte[REMEMBERED];

    private long count;
    private long lineFeeds;

    RememberingStream(InputStream in) {
        super(in);
    }

    @Override
    public int read() throws IOException {
        int b = in.read();
        if (b >= 0) {
            remember((byte) b);
        }
        return b;
    }

    @Override
    public int read(byte[] bytes, int offset, int length) throws IOException {
        int read = in.read(bytes, offset, length);
        for (int i = 0; i < read; i++) {
            remember(bytes[offset + i]);
        }
        return read;
    }

    private void remember(byte b) {
        last[(int) (count++ % REMEMBERED)] = b;
        if (b == '\n') {
            lineFeeds++;
        }
    }

    /**
     * {@return a line that was read not long ago, as far as it was read; null if it is forgotten}
     */
    @Nullable
    String line(long number) {
        long oldest = Math.max(0, count - REMEMBERED);
        long line = lineFeeds + 1;
        long end = count;
        for (long at = count - 1; at >= oldest - 1; at--) {
            boolean lineStart = at < 0 || at >= oldest && byteAt(at) == '\n';
            if (lineStart) {
                if (line == number) {
                    return text(at + 1, end);
                }
                line--;
                end = at;
            }
        }
        return null;
    }

    private byte byteAt(long at) {
        return last[(int) (at % REMEMBERED)];
    }

    private String text(long from, long to) {
        byte[] bytes = new byte[(int) (to - from)];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = byteAt(from + i);
        }
        return new String(bytes, StandardCharsets.UTF_8).stripTrailing();
    }

    @Override
    public boolean markSupported() {
        return false;
    }
}
