package dev.morphema.formats;

import dev.morphema.value.EightBytes;
import java.util.Arrays;

/** Bytes that are looked for at many places, compared eight at a time. Immutable. */
public final class KnownBytes {
    private final int length;
    /** The first eight, or zeros after those that there are, and which of them count. */
    private final long first;

    private final long counting;
    /** With spare ones, so that any can be the first of eight. */
    private final byte[] bytes;

    /** @param buffer where they stand, from one place to before another; at least one */
    public KnownBytes(byte[] buffer, int from, int to) {
        this.length = to - from;
        this.bytes = Arrays.copyOf(Arrays.copyOfRange(buffer, from, to), length + Long.BYTES);
        this.first = EightBytes.at(bytes, 0);
        this.counting = EightBytes.first(-1L, Math.min(length, Long.BYTES));
    }

    /** {@return how many they are} */
    public int length() {
        return length;
    }

    /**
     * {@return whether they stand at a place}
     *
     * @param buffer with at least as many bytes behind the place, and seven more
     */
    public boolean areAt(byte[] buffer, int place) {
        if (((EightBytes.at(buffer, place) ^ first) & counting) != 0) {
            return false;
        }
        int last = length - Long.BYTES;
        for (int i = Long.BYTES; i < last; i += Long.BYTES) {
            if (EightBytes.at(buffer, place + i) != EightBytes.at(bytes, i)) {
                return false;
            }
        }
        return last <= 0 || EightBytes.at(buffer, place + last) == EightBytes.at(bytes, last);
    }

    /** {@return whether both are the same bytes} */
    public boolean areSame(KnownBytes other) {
        return Arrays.equals(bytes, other.bytes);
    }
}
