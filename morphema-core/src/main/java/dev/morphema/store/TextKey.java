package dev.morphema.store;

import dev.morphema.value.EightBytes;
import dev.morphema.value.Hashing;
import dev.morphema.value.TextValue;
import java.util.Arrays;

/**
 * A key of one or more texts in ASCII, as their bytes with the length behind each, so that none is
 * made an object to be looked up. Not thread-safe while texts are added; a {@link #copy} is never
 * changed.
 */
final class TextKey {
    private static final int FIRST_SIZE = 64;

    private byte[] bytes;
    private int length;

    TextKey() {
        this(new byte[FIRST_SIZE], 0);
    }

    private TextKey(byte[] bytes, int length) {
        this.bytes = bytes;
        this.length = length;
    }

    /** Begins anew. */
    void clear() {
        length = 0;
    }

    /** Adds a text in ASCII, from one place to before another. */
    void add(byte[] ascii, int from, int to) {
        makeRoom(to - from);
        System.arraycopy(ascii, from, bytes, length, to - from);
        end(length, length + to - from);
    }

    /**
     * Adds a text; says whether it is in ASCII, else nothing is of use that was added since the key
     * was begun.
     */
    boolean add(TextValue text) {
        makeRoom(Math.max(text.length(), text.mostBytes()));
        int end = text.printed(bytes, length);
        if (end < 0) {
            String characters = text.text();
            end = length;
            for (int i = 0; i < characters.length(); i++) {
                char c = characters.charAt(i);
                if (c >= 0x80) {
                    return false;
                }
                bytes[end++] = (byte) c;
            }
        }
        end(length, end);
        return true;
    }

    private void makeRoom(int more) {
        if (length + more + 2 * Long.BYTES > bytes.length) {
            bytes = Arrays.copyOf(bytes, 2 * (length + more + Long.BYTES));
        }
    }

    private void end(int from, int to) {
        EightBytes.put(bytes, to, to - from);
        length = to + Integer.BYTES;
    }

    /** {@return a number that mostly is another one for another key} */
    long mixed() {
        long mixed = Hashing.start() ^ length;
        int i = 0;
        for (; i + Long.BYTES <= length; i += Long.BYTES) {
            mixed = Hashing.step(mixed, EightBytes.at(bytes, i));
        }
        return i < length ? Hashing.step(mixed, EightBytes.first(EightBytes.at(bytes, i), length - i)) : mixed;
    }

    /** {@return the same key, which stays what it is} */
    TextKey copy() {
        return new TextKey(Arrays.copyOf(bytes, length + Long.BYTES), length);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TextKey key && Arrays.equals(bytes, 0, length, key.bytes, 0, key.length);
    }

    @Override
    public int hashCode() {
        return Hashing.folded(mixed());
    }
}
