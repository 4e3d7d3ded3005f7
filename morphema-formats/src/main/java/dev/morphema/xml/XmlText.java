package dev.morphema.xml;

import dev.morphema.value.EightBytes;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Bytes of text in UTF-8 that are put together. Not thread-safe. */
final class XmlText {
    /** So that sixteen can be copied from any place, or to it. */
    private static final int SPARE = 2 * Long.BYTES;

    private byte[] bytes = new byte[64];
    private int length;

    /** {@return the bytes so far, and spare ones behind them} */
    byte[] bytes() {
        return bytes;
    }

    int length() {
        return length;
    }

    void clear() {
        length = 0;
    }

    /**
     * Adds the bytes from one place to before another; there are at least fifteen more behind the
     * first.
     */
    void add(byte[] source, int from, int to) {
        room(to - from);
        EightBytes.copy(source, from, bytes, length, to - from);
        length += to - from;
    }

    /** Adds a character of ASCII. */
    void add(char c) {
        room(1);
        bytes[length++] = (byte) c;
    }

    /** Adds any character. */
    void addCharacter(int code) {
        byte[] encoded = Character.toString(code).getBytes(StandardCharsets.UTF_8);
        room(encoded.length);
        System.arraycopy(encoded, 0, bytes, length, encoded.length);
        length += encoded.length;
    }

    private void room(int more) {
        if (length + more + SPARE > bytes.length) {
            bytes = Arrays.copyOf(bytes, (bytes.length + more) * 2);
        }
    }
}
