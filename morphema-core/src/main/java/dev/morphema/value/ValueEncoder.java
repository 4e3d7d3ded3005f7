package dev.morphema.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Turns values into bytes that a {@link ValueDecoder} with the same names turns back, within one
 * run of one program. Fields of a record that were not converted yet stay so. Not thread-safe.
 */
public final class ValueEncoder {
    // How a field of a record is encoded; from the last one on, how many bytes it has.
    static final int NOTHING = 0;
    static final int VALUE = 1;
    static final int LEAST_BYTES = 2;

    /** How many bytes tell how many there are of a record. */
    static final int LENGTH_OF_BYTES = Short.BYTES;

    private static final int MOST_BYTES = 1 << Short.SIZE - 1;

    private final ValueNames names;
    private byte[] bytes = new byte[1 << 8];
    private int length;

    /** @param names shared with the decoder */
    public ValueEncoder(ValueNames names) {
        this.names = names;
    }

    /** {@return how many bytes there are} */
    public int length() {
        return length;
    }

    /** {@return the bytes, to be read up to the length} */
    public byte[] bytes() {
        return bytes;
    }

    /** Forgets all bytes. */
    public void clear() {
        length = 0;
    }

    /** Adds a row of values, each of which may be null. */
    public void row(@Nullable Value[] values) {
        number(values.length);
        for (Value value : values) {
            value(value);
        }
    }

    /** Adds one value. */
    public void add(Value value) {
        value(value);
    }

    private void value(@Nullable Value value) {
        if (value == null) {
            tag(ValueTag.NONE);
        } else if (value instanceof ElementText text) {
            tag(ValueTag.ELEMENT_TEXT);
            number(names.number(text.element()));
            text(text.text());
        } else if (value instanceof TextValue text && text.isPlain()) {
            tag(ValueTag.PLAIN_TEXT);
            number(text.length());
            room(text.mostBytes());
            length = text.printed(bytes, length);
        } else if (value instanceof TextValue text) {
            tag(ValueTag.TEXT);
            text(text.text());
        } else if (value instanceof NumberValue number) {
            number(number);
        } else if (value instanceof RecordValue record) {
            record(record);
        } else if (value instanceof Many many) {
            tag(ValueTag.MANY);
            items(many.items());
        } else if (value instanceof ListValue list) {
            tag(ValueTag.LIST);
            items(list.items());
        } else {
            single(value);
        }
    }

    private void single(Value value) {
        if (value instanceof Missing nothing) {
            tag(nothing == Missing.ABSENT ? ValueTag.ABSENT : ValueTag.NULL);
        } else if (value instanceof BooleanValue truth) {
            tag(truth.isTrue() ? ValueTag.TRUE : ValueTag.FALSE);
        } else if (value instanceof DateValue date) {
            tag(ValueTag.DATE);
            date(date.date());
        } else if (value instanceof TimeValue time) {
            tag(ValueTag.TIME);
            time(time.time());
        } else {
            DateTimeValue datetime = (DateTimeValue) value;
            tag(datetime.offset() == null ? ValueTag.LOCAL_DATETIME : ValueTag.DATETIME);
            date(datetime.local().toLocalDate());
            time(datetime.local().toLocalTime());
            if (datetime.offset() != null) {
                signed(datetime.offset().getTotalSeconds());
            }
        }
    }

    private void date(LocalDate date) {
        signed(date.toEpochDay());
    }

    private void time(LocalTime time) {
        number(time.toNanoOfDay());
    }

    private void number(NumberValue number) {
        BigDecimal large = number.largeDecimal();
        if (large != null) {
            tag(ValueTag.LARGE_NUMBER);
            text(large.toString());
        } else {
            tag(ValueTag.NUMBER);
            signed(number.unscaled());
            number(number.scale());
        }
    }

    private void items(List<Value> items) {
        number(items.size());
        for (Value item : items) {
            value(item);
        }
    }

    private void record(RecordValue record) {
        tag(ValueTag.RECORD);
        number(names.number(record.layout()));
        Origin origin = record.origin();
        number(origin == null ? 0 : names.number(origin.input()) + 1L);
        if (origin != null) {
            number(origin.record());
            number(origin.line());
        }
        FieldName element = record.element();
        number(element == null ? 0 : names.number(element) + 1L);
        fields(record);
        List<RecordValue.Part> parts = record.isMixed() ? record.unconvertedParts() : List.of();
        number(parts.size());
        for (RecordValue.Part part : parts) {
            number(part.name() == null ? 0 : names.number(part.name()) + 1L);
            value(part.value());
        }
    }

    /** First the bytes of all fields that are there as such, or can be, then what each field is. */
    private void fields(RecordValue record) {
        int begin = length;
        room(LENGTH_OF_BYTES);
        length += LENGTH_OF_BYTES;
        int[] forms = new int[record.layout().size()];
        for (int slot = 0; slot < forms.length; slot++) {
            forms[slot] = bytes(record, slot, begin + MOST_BYTES);
        }
        int count = length - begin - LENGTH_OF_BYTES;
        bytes[begin] = (byte) count;
        bytes[begin + 1] = (byte) (count >> Byte.SIZE);
        for (int slot = 0; slot < forms.length; slot++) {
            number(forms[slot]);
            if (forms[slot] == VALUE) {
                value(record.unconverted(slot));
            }
        }
    }

    /**
     * Adds a field if it can stay or become bytes, of which there is room up to a place; gives its
     * form.
     */
    private int bytes(RecordValue record, int slot, int end) {
        Value known = record.known(slot);
        if (known instanceof TextValue text) {
            return text.isPlain() && !(text instanceof ElementText) ? plain(text, end) : VALUE;
        }
        if (known != null) {
            return VALUE;
        }
        FieldBytes fields = record.fieldBytes();
        if (fields == null || !fields.has(slot)) {
            return NOTHING;
        }
        int count = fields.lengthOf(slot);
        if (length + count > end) {
            return VALUE;
        }
        room(count + FieldBytes.SPARE);
        fields.copy(slot, bytes, length);
        length += count;
        return formOf(count, fields.isNumber(slot));
    }

    private int plain(TextValue text, int end) {
        int count = text.length();
        if (count > FieldBytes.MOST_LENGTH || length + count > end) {
            return VALUE;
        }
        room(text.mostBytes());
        length = text.printed(bytes, length);
        return formOf(count, false);
    }

    private static int formOf(int count, boolean number) {
        return LEAST_BYTES + (count << 1 | (number ? 1 : 0));
    }

    private void tag(ValueTag tag) {
        room(1);
        bytes[length++] = (byte) tag.ordinal();
    }

    /** Texts keep every char, also one that is half of a pair, which no charset would. */
    private void text(String text) {
        int chars = text.length();
        boolean narrow = true;
        for (int i = 0; i < chars && narrow; i++) {
            narrow = text.charAt(i) < 256;
        }
        number(chars * 2L + (narrow ? 0 : 1));
        if (narrow) {
            byte[] latin = text.getBytes(StandardCharsets.ISO_8859_1);
            room(chars);
            System.arraycopy(latin, 0, bytes, length, chars);
            length += chars;
            return;
        }
        room(chars * 2);
        for (int i = 0; i < chars; i++) {
            char c = text.charAt(i);
            bytes[length++] = (byte) (c >> 8);
            bytes[length++] = (byte) c;
        }
    }

    private void signed(long number) {
        number(number << 1 ^ number >> 63);
    }

    /** A number, taken as without sign: seven bits a byte, the lowest first. */
    private void number(long number) {
        room(10);
        long rest = number;
        while ((rest & ~0x7FL) != 0) {
            bytes[length++] = (byte) (rest | 0x80);
            rest >>>= 7;
        }
        bytes[length++] = (byte) rest;
    }

    private void room(int more) {
        if (bytes.length - length < more) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + more));
        }
    }
}
