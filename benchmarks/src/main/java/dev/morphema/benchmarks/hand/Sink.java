package dev.morphema.benchmarks.hand;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A buffer of bytes in front of a file, with what rivals written by hand need to write text into it
 * at once.
 */
final class Sink implements AutoCloseable {
    private static final int SIZE = 1 << 16;
    private static final byte[] HEX = "0123456789abcdef".getBytes(StandardCharsets.US_ASCII);

    private final OutputStream out;
    private final byte[] buffer;
    private int at;

    Sink(Path file) throws IOException {
        this(Files.newOutputStream(file), SIZE);
    }

    /** In front of a stream in memory, for one message. */
    Sink(ByteArrayOutputStream bytes) {
        this(bytes, 1 << 12);
    }

    private Sink(OutputStream out, int size) {
        this.out = out;
        this.buffer = new byte[size];
    }

    static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Makes room for some bytes; few enough for the buffer. */
    private void room(int count) throws IOException {
        if (at + count > buffer.length) {
            out.write(buffer, 0, at);
            at = 0;
        }
    }

    void put(byte[] bytes) throws IOException {
        room(bytes.length);
        System.arraycopy(bytes, 0, buffer, at, bytes.length);
        at += bytes.length;
    }

    void put(int b) throws IOException {
        room(1);
        buffer[at++] = (byte) b;
    }

    /** Characters without any escape. */
    void text(char[] chars, int offset, int length) throws IOException {
        for (int i = offset; i < offset + length; i++) {
            room(4);
            char c = chars[i];
            if (c < 0x80) {
                buffer[at++] = (byte) c;
            } else {
                i = encode(chars, i);
            }
        }
    }

    /** Characters as the inside of a JSON string. */
    void json(char[] chars, int offset, int length) throws IOException {
        for (int i = offset; i < offset + length; i++) {
            room(6);
            char c = chars[i];
            if (c >= 0x80) {
                i = encode(chars, i);
            } else if (c == '"' || c == '\\') {
                buffer[at++] = '\\';
                buffer[at++] = (byte) c;
            } else if (c < 0x20) {
                control(c);
            } else {
                buffer[at++] = (byte) c;
            }
        }
    }

    private void control(char c) {
        buffer[at++] = '\\';
        int shortForm =
                "btn\0fr".indexOf(c == 8 ? 'b' : c == 9 ? 't' : c == 10 ? 'n' : c == 12 ? 'f' : c == 13 ? 'r' : ' ');
        if (shortForm >= 0) {
            buffer[at++] = (byte) "btn\0fr".charAt(shortForm);
            return;
        }
        buffer[at++] = 'u';
        buffer[at++] = '0';
        buffer[at++] = '0';
        buffer[at++] = HEX[c >> 4];
        buffer[at++] = HEX[c & 15];
    }

    /** Characters as text or attribute in XML. */
    void xml(char[] chars, int offset, int length, boolean attribute) throws IOException {
        for (int i = offset; i < offset + length; i++) {
            room(6);
            char c = chars[i];
            if (c >= 0x80) {
                i = encode(chars, i);
            } else if (c == '&') {
                put(AMP);
            } else if (c == '<') {
                put(LT);
            } else if (c == '>' && !attribute) {
                put(GT);
            } else if (c == '"' && attribute) {
                put(QUOT);
            } else {
                buffer[at++] = (byte) c;
            }
        }
    }

    private static final byte[] AMP = bytes("&amp;");
    private static final byte[] LT = bytes("&lt;");
    private static final byte[] GT = bytes("&gt;");
    private static final byte[] QUOT = bytes("&quot;");

    /** Characters as a cell of CSV, in quotes where they must be. */
    void csv(char[] chars, int offset, int length) throws IOException {
        boolean quoted = false;
        for (int i = offset; i < offset + length && !quoted; i++) {
            char c = chars[i];
            quoted = c == ',' || c == '"' || c == '\n' || c == '\r';
        }
        if (!quoted) {
            text(chars, offset, length);
            return;
        }
        put('"');
        for (int i = offset; i < offset + length; i++) {
            if (chars[i] == '"') {
                put('"');
            }
            if (chars[i] < 0x80) {
                put(chars[i]);
            } else {
                room(4);
                i = encode(chars, i);
            }
        }
        put('"');
    }

    private int encode(char[] chars, int i) {
        char c = chars[i];
        if (c < 0x800) {
            buffer[at++] = (byte) (0xC0 | c >> 6);
            buffer[at++] = (byte) (0x80 | c & 63);
            return i;
        }
        if (Character.isHighSurrogate(c)) {
            int code = Character.toCodePoint(c, chars[i + 1]);
            buffer[at++] = (byte) (0xF0 | code >> 18);
            buffer[at++] = (byte) (0x80 | code >> 12 & 63);
            buffer[at++] = (byte) (0x80 | code >> 6 & 63);
            buffer[at++] = (byte) (0x80 | code & 63);
            return i + 1;
        }
        buffer[at++] = (byte) (0xE0 | c >> 12);
        buffer[at++] = (byte) (0x80 | c >> 6 & 63);
        buffer[at++] = (byte) (0x80 | c & 63);
        return i;
    }

    /** A decimal: a whole number of its smallest unit. */
    void decimal(long unscaled, int scale) throws IOException {
        room(24);
        long value = Math.abs(unscaled);
        if (unscaled < 0) {
            buffer[at++] = '-';
        }
        int digits = 1;
        for (long rest = value; rest >= 10; rest /= 10) {
            digits++;
        }
        digits = Math.max(digits, scale + 1);
        int length = digits + (scale > 0 ? 1 : 0);
        int end = at + length;
        for (int i = end - 1, done = 0; i >= at; i--, done++) {
            if (scale > 0 && done == scale) {
                buffer[i] = '.';
            } else {
                buffer[i] = (byte) ('0' + value % 10);
                value /= 10;
            }
        }
        at = end;
    }

    @Override
    public void close() throws IOException {
        out.write(buffer, 0, at);
        out.close();
    }
}
