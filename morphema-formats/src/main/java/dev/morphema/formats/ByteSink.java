package dev.morphema.formats;

import dev.morphema.value.NumberValue;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;

/**
 * A buffer in front of a stream, into which text is written as UTF-8 without a copy on the way. What may not stand as it is
 * goes through the escape of the format. Not thread-safe; a failure to write is an {@link UncheckedIOException}.
 */
public final class ByteSink {
    private static final int SIZE = 1 << 13;

    /** No character takes more, nor does a number that is written into the buffer. */
    private static final int MOST_AT_ONCE = 48;

    private static final char REPLACEMENT = '\uFFFD';

    private final OutputStream out;
    private final byte[] buffer = new byte[SIZE];
    private final char[] chars = new char[SIZE / 8];
    private int at;

    /** @param out takes the bytes; whoever opened it closes it */
    public ByteSink(OutputStream out) {
        this.out = out;
    }

    /** Says how the ASCII characters of a text are written. Immutable. */
    public static final class Escape {
        private final byte[][] written;

        /** @param written for each ASCII character what stands for it, or null if it stands for itself */
        public Escape(byte[][] written) {
            this.written = written.clone();
        }
    }

    /** {@return the bytes of a constant} */
    public static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Writes a byte. */
    public void write(int b) {
        if (at == SIZE) {
            drain();
        }
        buffer[at++] = (byte) b;
    }

    /** Writes bytes. */
    public void write(byte[] bytes) {
        if (bytes.length > SIZE - at) {
            drain();
            if (bytes.length > SIZE) {
                writeThrough(bytes);
                return;
            }
        }
        System.arraycopy(bytes, 0, buffer, at, bytes.length);
        at += bytes.length;
    }

    /** Writes a number in plain digits. */
    public void write(NumberValue number) {
        if (SIZE - at < MOST_AT_ONCE) {
            drain();
        }
        int end = number.printed(buffer, at);
        if (end >= 0) {
            at = end;
        } else {
            write(bytes(number.toString()));
        }
    }

    /** Writes a text, escaped; half of a surrogate pair is written as the replacement character. */
    public void write(String text, Escape escape) {
        int length = text.length();
        for (int from = 0; from < length; ) {
            int to = Math.min(length, from + chars.length);
            if (to < length && Character.isHighSurrogate(text.charAt(to - 1))) {
                to--;
            }
            text.getChars(from, to, chars, 0);
            write(to - from, escape.written);
            from = to;
        }
    }

    private void write(int count, byte[][] written) {
        for (int i = 0; i < count; i++) {
            if (SIZE - at < 4) {
                drain();
            }
            char c = chars[i];
            if (c < 0x80) {
                byte[] other = written[c];
                if (other == null) {
                    buffer[at++] = (byte) c;
                } else {
                    write(other);
                }
            } else if (c < 0x800) {
                buffer[at++] = (byte) (0xC0 | c >> 6);
                buffer[at++] = (byte) (0x80 | c & 0x3F);
            } else if (!Character.isSurrogate(c)) {
                three(c);
            } else if (Character.isHighSurrogate(c) && i + 1 < count && Character.isLowSurrogate(chars[i + 1])) {
                int code = Character.toCodePoint(c, chars[++i]);
                buffer[at++] = (byte) (0xF0 | code >> 18);
                buffer[at++] = (byte) (0x80 | code >> 12 & 0x3F);
                buffer[at++] = (byte) (0x80 | code >> 6 & 0x3F);
                buffer[at++] = (byte) (0x80 | code & 0x3F);
            } else {
                three(REPLACEMENT);
            }
        }
    }

    private void three(char c) {
        buffer[at++] = (byte) (0xE0 | c >> 12);
        buffer[at++] = (byte) (0x80 | c >> 6 & 0x3F);
        buffer[at++] = (byte) (0x80 | c & 0x3F);
    }

    private void drain() {
        try {
            out.write(buffer, 0, at);
            at = 0;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void writeThrough(byte[] bytes) {
        try {
            out.write(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Hands all bytes to the stream.
     *
     * @throws IOException if that fails
     */
    public void flush() throws IOException {
        try {
            drain();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        out.flush();
    }
}
