package dev.morphema.formats;

/**
 * All that stands between a value, or the beginning of a record, and the value of a field: where it
 * comes again it need not be taken apart again. Immutable.
 */
public final class KnownGap {
    private final FieldOrder.Field field;
    private final boolean afterValue;
    private final KnownBytes bytes;
    private final int lines;
    private final int lineStart;

    /**
     * @param field to whose value it leads
     * @param afterValue whether a value of the same record comes before it
     * @param buffer where it stands, from one place to before another; at least one byte
     * @param lines how many lines end in it
     * @param lineStart where the last line begins, counted from its first byte; of no matter if no
     *     line ends
     */
    public KnownGap(
            FieldOrder.Field field, boolean afterValue, byte[] buffer, int from, int to, int lines, int lineStart) {
        this.field = field;
        this.afterValue = afterValue;
        this.bytes = new KnownBytes(buffer, from, to);
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
        return bytes.length();
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
        return bytes.areAt(buffer, place);
    }
}
