package dev.morphema.value;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Texts and numbers of one record as their bytes in UTF-8, in one array: fields mostly go through,
 * from the bytes of one file to those of another, and no value is made of one until somebody asks
 * for it. Immutable, but for the fields of a {@linkplain Row#beginPassing passing} record, which
 * are others as soon as the next record begins.
 */
public final class FieldBytes {
    /** The most bytes of a date, a time or a number that is printed without making a value. */
    public static final int MOST_PRINTED = 32;

    /**
     * Beyond its own length, for what takes more when it is printed, and seven bytes that may be
     * written behind it.
     */
    private static final int ROOM = 2 * MOST_PRINTED;

    // A field is a number: how it is to be understood, where it begins, and how many bytes it has.
    private static final int LENGTH_BITS = 12;
    /** The most bytes of a field. */
    static final int MOST_LENGTH = (1 << LENGTH_BITS) - 1;

    private static final int START_BITS = 18;
    /** The last place at which a field can begin. */
    static final int MOST_START = (1 << START_BITS) - 1;

    private static final int KIND_PLACE = LENGTH_BITS + START_BITS;
    private static final int TEXT = 1;
    private static final int NUMBER = 2;
    /** A text of which all characters are in ASCII, so that each byte is one. */
    private static final int PLAIN = 3;

    /**
     * Bytes behind the last field, of which others can be copied or looked at eight or sixteen at a
     * time.
     */
    static final int SPARE = 2 * Long.BYTES;

    /** With spare ones at the end. */
    private final byte[] bytes;
    /** By slot; zero where a record has no such field. */
    private final int[] fields;
    /** Whether the bytes are those of something else as soon as the next record begins. */
    private final boolean passing;

    /**
     * @param bytes with {@link #SPARE} ones at the end; not to be changed any more
     * @param fields by slot, each made by {@link #field}, or 0
     */
    FieldBytes(byte[] bytes, int[] fields) {
        this(bytes, fields, false);
    }

    private FieldBytes(byte[] bytes, int[] fields, boolean passing) {
        this.bytes = bytes;
        this.fields = fields;
        this.passing = passing;
    }

    /** {@return whether they are those of another record as soon as that begins} */
    public boolean isPassing() {
        return passing;
    }

    /** {@return the same fields for good}, whatever becomes of where they stand now. */
    FieldBytes detached() {
        if (!passing) {
            return this;
        }
        int length = 0;
        for (int field : fields) {
            length += length(field);
        }
        byte[] own = new byte[length + SPARE];
        int[] moved = new int[fields.length];
        int at = 0;
        for (int slot = 0; slot < moved.length; slot++) {
            int field = fields[slot];
            if (field != 0) {
                EightBytes.copy(bytes, start(field), own, at, length(field));
                moved[slot] = field(field >>> KIND_PLACE, at, length(field));
                at += length(field);
            }
        }
        return new FieldBytes(own, moved);
    }

    /** {@return the number that stands for a text, or for a number as it is printed} */
    static int field(boolean number, int start, int length) {
        return field(number ? NUMBER : TEXT, start, length);
    }

    private static int field(int kind, int start, int length) {
        return kind << KIND_PLACE | start << LENGTH_BITS | length;
    }

    /** Collects the fields of one record after the other. Not thread-safe. */
    public static final class Row {
        private static final int FIRST_SIZE = 128;

        private byte[] bytes = new byte[FIRST_SIZE];
        private int end;
        private int[] fields;
        private boolean any;

        /** Where the fields of a passing record are left; null for another record. */
        private byte @Nullable [] source;
        /** What passing records were given last, with the fields of this row. */
        private @Nullable FieldBytes shown;

        /** @param slots how many fields a record may have */
        public Row(int slots) {
            fields = new int[slots];
        }

        /**
         * Begins a record that is kept as long as somebody wants it; what was added since the last
         * {@link #take} is forgotten.
         */
        public void begin() {
            if (any || source != null) {
                fields = new int[fields.length];
            }
            end = 0;
            any = false;
            source = null;
            shown = null;
        }

        /**
         * Begins a record that nobody has any more when the next one begins: its fields need not be
         * copied.
         *
         * @param from where all fields will be found that are added, and stay until the next record
         *     begins
         */
        public void beginPassing(byte[] from) {
            if (any) {
                Arrays.fill(fields, 0);
                any = false;
            }
            source = from;
        }

        /**
         * Adds a text.
         *
         * @param utf8 where it is found, from one place to before another; at least one byte, and
         *     fifteen more behind the first
         * @return whether it was added; a text may be too long for that
         */
        public boolean text(int slot, byte[] utf8, int from, int to) {
            return add(TEXT, slot, utf8, from, to);
        }

        /** As {@link #text}, for a text of which all characters are in ASCII. */
        public boolean plain(int slot, byte[] ascii, int from, int to) {
            return add(PLAIN, slot, ascii, from, to);
        }

        /**
         * As {@link #text}, for a number that is {@linkplain NumberScan#asPrinted written as it is
         * printed}.
         */
        public boolean number(int slot, byte[] ascii, int from, int to) {
            return add(NUMBER, slot, ascii, from, to);
        }

        private boolean add(int kind, int slot, byte[] found, int from, int to) {
            return source == null ? copied(kind, slot, found, from, to) : left(kind, slot, from, to - from);
        }

        private boolean left(int kind, int slot, int start, int length) {
            if (length > MOST_LENGTH || start > MOST_START) {
                return false;
            }
            set(kind, slot, start, length);
            return true;
        }

        private boolean copied(int kind, int slot, byte[] found, int from, int to) {
            int start = end;
            if (!left(kind, slot, start, to - from)) {
                return false;
            }
            put(found, from, to);
            return true;
        }

        private void set(int kind, int slot, int start, int length) {
            fields[slot] = field(kind, start, length);
            any = true;
        }

        /** Begins a text that is added in pieces; gives where it begins. */
        public int beginText() {
            return end;
        }

        /**
         * Adds a piece of a text, from one place to before another; there are fifteen more bytes
         * behind the first.
         */
        public void put(byte[] piece, int from, int to) {
            int length = to - from;
            int at = end;
            if (length > SPARE || at + SPARE > bytes.length) {
                putAny(piece, from, length);
            } else {
                EightBytes.copySixteen(piece, from, bytes, at);
            }
            end = at + length;
        }

        private void putAny(byte[] piece, int from, int length) {
            if (end + length + SPARE > bytes.length) {
                bytes = Arrays.copyOf(bytes, (bytes.length + length) * 2);
            }
            System.arraycopy(piece, from, bytes, end, length);
        }

        /** Adds one byte of a text. */
        public void put(int b) {
            if (end + SPARE >= bytes.length) {
                bytes = Arrays.copyOf(bytes, bytes.length * 2);
            }
            bytes[end++] = (byte) b;
        }

        /**
         * Ends a text that was added in pieces.
         *
         * @param begin where it begins
         * @return whether it was added; if not, it is dropped
         */
        public boolean end(int slot, int begin) {
            int length = end - begin;
            if (length == 0 || length > MOST_LENGTH || begin > MOST_START) {
                drop(begin);
                return false;
            }
            set(TEXT, slot, begin, length);
            return true;
        }

        /** {@return the text that was added in pieces, as a value} */
        public TextValue text(int begin) {
            return TextValue.of(bytes, begin, end);
        }

        /** Drops the pieces from a place on. */
        public void drop(int begin) {
            end = begin;
        }

        /** {@return whether a field was added} */
        public boolean has(int slot) {
            return fields[slot] != 0;
        }

        /** {@return the value of a field that was added, which the row has no longer} */
        Value remove(int slot) {
            Value value = new FieldBytes(bytes, fields).value(slot);
            fields[slot] = 0;
            return value;
        }

        /** {@return the fields of the record that is complete, or null if there are none} */
        public @Nullable FieldBytes take() {
            if (!any) {
                return null;
            }
            return source == null ? copied() : left(source);
        }

        private FieldBytes left(byte[] where) {
            FieldBytes known = shown;
            if (known == null || known.bytes != where) {
                known = new FieldBytes(where, fields, true);
                shown = known;
            }
            return known;
        }

        private FieldBytes copied() {
            byte[] all = new byte[end + SPARE];
            System.arraycopy(bytes, 0, all, 0, end);
            FieldBytes taken = new FieldBytes(all, fields);
            begin();
            return taken;
        }
    }

    /** {@return whether a field is there} */
    public boolean has(int slot) {
        return fields[slot] != 0;
    }

    /** {@return whether a field was added as a number} */
    public boolean isNumber(int slot) {
        return fields[slot] >>> KIND_PLACE == NUMBER;
    }

    /** {@return whether a field is a text that is known to be in ASCII} */
    public boolean isPlain(int slot) {
        return fields[slot] >>> KIND_PLACE == PLAIN;
    }

    boolean arePlain(int[] slots) {
        for (int slot : slots) {
            if (!isPlain(slot)) {
                return false;
            }
        }
        return true;
    }

    /**
     * {@return where the fields are found, not to be changed}; behind each are at least fifteen
     * bytes more.
     */
    public byte[] array() {
        return bytes;
    }

    /** {@return the place of the first byte of a field that there is} */
    public int from(int slot) {
        return start(fields[slot]);
    }

    /** {@return the place after the last byte of a field that there is} */
    public int to(int slot) {
        return start(fields[slot]) + length(fields[slot]);
    }

    private static int start(int field) {
        return field >>> LENGTH_BITS & MOST_START;
    }

    private static int length(int field) {
        return field & MOST_LENGTH;
    }

    /** {@return how many bytes a field has, 0 if it is not there} */
    int lengthOf(int slot) {
        return length(fields[slot]);
    }

    /** {@return the value of a field that there is} */
    Value value(int slot) {
        int from = start(fields[slot]);
        int to = from + lengthOf(slot);
        NumberValue number = isNumber(slot) ? NumberParser.read(bytes, from, to, (byte) '.') : null;
        return number == null ? TextValue.of(bytes, from, to) : number;
    }

    /**
     * {@return the bytes that a field mostly takes when it is {@linkplain #print printed}, also if
     * some others stand for marks}
     */
    public int mostBytes(int slot) {
        return lengthOf(slot) + ROOM;
    }

    /**
     * Prints a field that there is.
     *
     * @param type its declared type, or null
     * @param marks what is written otherwise than it stands there
     * @param into with room for {@link #mostBytes}
     * @return where the printed text ends, or -1 if it cannot be written like that, or is not in
     *     common form
     */
    public int print(int slot, @Nullable Converter type, Marks marks, byte[] into, int at) {
        int field = fields[slot];
        return type == null
                ? marks.copy(bytes, start(field), length(field), into, at)
                : printAs(type, field, marks, into, at);
    }

    private int printAs(Converter type, int field, Marks marks, byte[] into, int at) {
        int from = start(field);
        return marks.areInNumbersAndDates() ? -1 : type.print(bytes, from, from + length(field), into, at);
    }

    /** Copies the bytes of a field to where there is room for {@link #SPARE} more. */
    void copy(int slot, byte[] into, int at) {
        EightBytes.copy(bytes, start(fields[slot]), into, at, lengthOf(slot));
    }

    /**
     * {@return how many bytes there are on the heap, about; the array may also hold the fields of
     * other records}
     */
    long size() {
        long size = 4L * fields.length + 56 + SPARE;
        for (int field : fields) {
            size += length(field);
        }
        return size;
    }
}
