package dev.morphema.store;

import dev.morphema.value.EightBytes;
import dev.morphema.value.FieldBytes;

/** The bytes of the key that came last. Not thread-safe. */
public final class LastKey {
    private static final byte[] NONE = {};

    private byte[] bytes = NONE;
    private int length;

    /**
     * {@return whether the key in a field is the same as the last one}, which it is from now on.
     */
    public boolean isStill(FieldBytes plain, int slot) {
        boolean still = is(plain.array(), plain.from(slot), plain.to(slot));
        if (!still) {
            set(plain.array(), plain.from(slot), plain.to(slot));
        }
        return still;
    }

    /**
     * {@return whether some bytes are the same as those that were taken last}
     *
     * @param other with at least seven more behind them
     */
    private boolean is(byte[] other, int from, int to) {
        if (to - from != length) {
            return false;
        }
        int i = 0;
        while (i + Long.BYTES <= length) {
            if (EightBytes.at(bytes, i) != EightBytes.at(other, from + i)) {
                return false;
            }
            i += Long.BYTES;
        }
        return i == length
                || EightBytes.first(EightBytes.at(bytes, i) ^ EightBytes.at(other, from + i), length - i) == 0;
    }

    private void set(byte[] other, int from, int to) {
        length = to - from;
        if (length + Long.BYTES > bytes.length) {
            bytes = new byte[2 * length + Long.BYTES];
        }
        System.arraycopy(other, from, bytes, 0, length);
    }
}
