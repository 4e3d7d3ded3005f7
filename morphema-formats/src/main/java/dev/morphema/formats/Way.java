package dev.morphema.formats;

import dev.morphema.value.EightBytes;
import java.util.Arrays;

/**
 * All that stands between a value, or the beginning of a record, and the value of a field: where it comes again it need not
 * be taken apart again. Immutable.
 */
public final class Way {
    private final FieldOrder.Field field;
    private final boolean afterValue;
    private final int length;
    /** The first eight bytes, or zeros after those that there are, and which of them count. */
    private final long first;

    private final long counting;
    /** With spare bytes, so that any can be the first of eight. */
    private final byte[] bytes;

    private final int lines;
    private final int lineStart;

    /**
     * @param field to whose value it leads
     * @param afterValue whether a value of the same record comes before it
     * @param buffer where it stands, from one place to before another; at least one byte
     * @param lines how many lines end in it
     * @param lineStart where the last line begins, counted from its first byte; of no matter if no line ends
     */
    public Way(FieldOrder.Field field, boolean afterValue, byte[] buffer, int from, int to, int lines, int lineStart) {
        this.field = field;
        this.afterValue = afterValue;
        this.length = to - from;
        this.bytes = Arrays.copyOf(Arrays.copyOfRange(buffer, from, to), length + Long.BYTES);
        this.first = EightBytes.at(bytes, 0);
        this.counting = EightBytes.first(-1L, Math.min(length, Long.BYTES));
        this.lines = lines;
        this.lineStart = lineStart;
    }

    /** {@return the field to whose value it leads} */
    public FieldOrder.Field field() {
        return field;
    }

    /** {@return whether a value of the same record comes before it} */
    public boolean afterValue() {
        return afterValue;
    }

    /** {@return how many bytes it has} */
    public int length() {
        return length;
    }

    /** {@return how many lines end in it} */
    public int lines() {
        return lines;
    }

    /** {@return where its last line begins, if there are some} */
    public int lineStart() {
        return lineStart;
    }

    /**
     * {@return whether it stands at a place}
     *
     * @param buffer with at least as many bytes behind the place as it has, and seven more
     */
    public boolean isAt(byte[] buffer, int place) {
        return ((EightBytes.at(buffer, place) ^ first) & counting) == 0
                && (length <= Long.BYTES || isRestAt(buffer, place));
    }

    private boolean isRestAt(byte[] buffer, int place) {
        int last = length - Long.BYTES;
        return EightBytes.at(buffer, place + last) == EightBytes.at(bytes, last)
                && (last <= Long.BYTES || Arrays.equals(buffer, place, place + last, bytes, 0, last));
    }
}
