package dev.morphema.json;

import dev.morphema.formats.ReadBuffer;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;

/**
 * The bytes of JSON, in UTF-8, as far as they have been read and are still needed, and the lines
 * that they are in. Not thread-safe.
 */
abstract class JsonWindow {
    /**
     * Bytes after those that were read, so that any of them can be the first of eight or sixteen.
     */
    private static final int SPARE = 2 * Long.BYTES;

    /** No array can have more, about. */
    private static final int LARGEST = Integer.MAX_VALUE - 2 * SPARE;

    private final InputStream in;
    private final int longest;

    byte[] buffer;
    /** Where we are, and where the bytes end that have been read. */
    int at;

    int limit;
    private boolean ended;
    /** Where the text or number at hand begins, and ends. */
    int from;

    int to;
    int line = 1;
    /** How many bytes were before those in the buffer, and before the line at hand. */
    long dropped;

    long lineStart;
    /** A line feed at hand belongs to the carriage return before it. */
    boolean afterReturn;

    private int tokenLine = 1;
    private long tokenStart;

    /** Tells that a text is longer than allowed. */
    static final class TooLong extends RuntimeException {
        TooLong() {
            super(null, null, false, false);
        }
    }

    /** Tells that the input is no JSON. */
    static final class BadJson extends RuntimeException {
        BadJson() {
            super(null, null, false, false);
        }
    }

    /**
     * @param bufferSize how many bytes to read at a time, at first
     * @param longest how many bytes may be kept when more are read
     */
    JsonWindow(InputStream in, int bufferSize, int longest) {
        this.in = in;
        this.longest = longest;
        this.buffer = new byte[bufferSize + SPARE];
    }

    /**
     * Reads more, the bytes from a place on kept; that place is the first of the buffer then. Says
     * whether there are more.
     */
    final boolean more(int keptFrom) throws IOException {
        if (ended) {
            return false;
        }
        int kept = limit - keptFrom;
        if (kept > longest) {
            throw new TooLong();
        }
        int size = buffer.length - SPARE;
        if (kept == size) {
            size = Math.min(kept, LARGEST / 2) * 2;
            buffer = Arrays.copyOf(buffer, size + SPARE);
        } else {
            System.arraycopy(buffer, keptFrom, buffer, 0, kept);
        }
        dropped += keptFrom;
        at -= keptFrom;
        from -= keptFrom;
        to -= keptFrom;
        limit = kept;
        int read = in.read(buffer, limit, size - limit);
        ended = read < 0;
        limit += Math.max(read, 0);
        return !ended;
    }

    /** Goes on to the next byte that is no white space; gives it, or -1 at the end. */
    final int skipWhite() throws IOException {
        while (true) {
            while (at < limit) {
                byte b = buffer[at];
                if (b > ' ') {
                    return b;
                }
                if (b == '\n' || b == '\r') {
                    line += b == '\r' || !afterReturn ? 1 : 0;
                    lineStart = dropped + at + 1;
                } else if (b != ' ' && b != '\t') {
                    throw new BadJson();
                }
                afterReturn = b == '\r';
                at++;
            }
            if (!more(at)) {
                return -1;
            }
        }
    }

    /** Reads on if little is left, so that a record is mostly there as a whole. */
    final void topUp() throws IOException {
        if (ReadBuffer.isLow(buffer, limit - at, in)) {
            more(at);
        }
    }

    /** Goes on behind a mark: a line feed that follows it ends a line of its own. */
    final void pass() {
        at++;
        afterReturn = false;
    }

    /** A token begins here. */
    final void start() {
        tokenLine = line;
        tokenStart = dropped + at;
        afterReturn = false;
    }

    /** {@return the line of the token, from 1} */
    public final int line() {
        return tokenLine;
    }

    /** {@return its column in bytes, from 1} */
    public final int column() {
        return (int) Math.min(Integer.MAX_VALUE, tokenStart - lineStart + 1);
    }

    /** Closes the input. */
    public final void close() throws IOException {
        in.close();
    }
}
