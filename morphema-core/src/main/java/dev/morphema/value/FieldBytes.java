package dev.morphema.value;

import org.jspecify.annotations.Nullable;

/**
 * Texts and numbers of one record as their bytes in ASCII, side by side in one array: fields mostly go through, from the bytes
 * of one file to those of another, and no value is made of one until somebody asks for it. Immutable.
 */
public final class FieldBytes {
    /** The most bytes of a date, a time or a number that is printed without making a value. */
    public static final int MOST_PRINTED = 32;

    // A field is a number: how it is to be understood, where it begins, and how many bytes it has.
    private static final int LENGTH_BITS = 12;
    private static final int MOST_LENGTH = (1 << LENGTH_BITS) - 1;
    private static final int START_BITS = 18;
    private static final int MOST_START = (1 << START_BITS) - 1;
    private static final int KIND_PLACE = LENGTH_BITS + START_BITS;
    private static final int TEXT = 1;
    private static final int NUMBER = 2;

    /** With seven spare bytes at the end. */
    private final byte[] bytes;
    /** By slot; zero where a record has no such field. */
    private final int[] fields;

    private FieldBytes(byte[] bytes, int[] fields) {
        this.bytes = bytes;
        this.fields = fields;
    }

    /** Collects the fields of one record after the other. Not thread-safe. */
    public static final class Row {
        private static final int FIRST_SIZE = 128;

        private byte[] bytes = new byte[FIRST_SIZE];
        private int end;
        private int[] fields;
        private boolean any;

        /** @param slots how many fields a record may have */
        public Row(int slots) {
            fields = new int[slots];
        }

        /**
         * Adds a text.
         *
         * @param ascii where it is found, from one place to before another; at least one byte
         * @return whether it was added; a text may be too long for that
         */
        public boolean text(int slot, byte[] ascii, int from, int to) {
            return add(TEXT, slot, ascii, from, to);
        }

        /** As {@link #text}, for a number that is {@linkplain NumberValue#isAsPrinted written as it is printed}. */
        public boolean number(int slot, byte[] ascii, int from, int to) {
            return add(NUMBER, slot, ascii, from, to);
        }

        private boolean add(int kind, int slot, byte[] source, int from, int to) {
            int length = to - from;
            if (length > MOST_LENGTH || end > MOST_START) {
                return false;
            }
            if (end + length + Long.BYTES > bytes.length) {
                byte[] more = new byte[(bytes.length + length) * 2];
                System.arraycopy(bytes, 0, more, 0, end);
                bytes = more;
            }
            if (from + length + Long.BYTES > source.length) {
                System.arraycopy(source, from, bytes, end, length);
            } else {
                // Most are short, for which a call to copy them takes longer.
                for (int i = 0; i < length; i += Long.BYTES) {
                    EightBytes.put(bytes, end + i, EightBytes.at(source, from + i));
                }
            }
            fields[slot] = kind << KIND_PLACE | end << LENGTH_BITS | length;
            end += length;
            any = true;
            return true;
        }

        /** {@return whether a field was added} */
        public boolean has(int slot) {
            return fields[slot] != 0;
        }

        /** {@return the fields that were added since the last call, or null if there are none} */
        public @Nullable FieldBytes take() {
            if (!any) {
                return null;
            }
            byte[] all = new byte[end + Long.BYTES];
            System.arraycopy(bytes, 0, all, 0, end);
            FieldBytes taken = new FieldBytes(all, fields);
            drop(new int[fields.length]);
            return taken;
        }

        /** Forgets what was added since the last {@link #take}. */
        public void clear() {
            if (any) {
                drop(new int[fields.length]);
            }
        }

        private void drop(int[] empty) {
            fields = empty;
            end = 0;
            any = false;
        }
    }

    boolean has(int slot) {
        return fields[slot] != 0;
    }

    boolean isNumber(int slot) {
        return fields[slot] >>> KIND_PLACE == NUMBER;
    }

    private int start(int slot) {
        return fields[slot] >>> LENGTH_BITS & MOST_START;
    }

    private int length(int slot) {
        return fields[slot] & MOST_LENGTH;
    }

    /** {@return the value of a field that there is} */
    Value value(int slot) {
        int from = start(slot);
        int to = from + length(slot);
        NumberValue number = isNumber(slot) ? NumberValue.read(bytes, from, to, (byte) '.') : null;
        return number == null ? text(from, to) : number;
    }

    private TextValue text(int from, int to) {
        TextValue plain = TextValue.ifPlain(bytes, from, to);
        return plain == null ? TextValue.ofAscii(bytes, from, to) : plain;
    }

    /** {@return the bytes that a field may take when it is {@linkplain #print printed}, and seven more} */
    int mostBytes(int slot) {
        return Math.max(length(slot), MOST_PRINTED) + Long.BYTES;
    }

    /**
     * Prints a field that there is.
     *
     * @param type its declared type, or null
     * @param marks without which it must be
     * @param into with room for {@link #mostBytes}
     * @return where the printed text ends, or -1 if it is not without marks, or not in common form
     */
    int print(int slot, @Nullable Converter type, Marks marks, byte[] into, int at) {
        int from = start(slot);
        int length = length(slot);
        if (type == null) {
            return marks.copyWithout(bytes, from, length, into, at);
        }
        return marks.areInNumbersAndDates() ? -1 : type.print(bytes, from, from + length, into, at);
    }

    /** {@return how many bytes there are on the heap, about} */
    long size() {
        return bytes.length + 4L * fields.length + 56;
    }
}
