package dev.morphema.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Turns the bytes of a {@link ValueEncoder} back into values. Not thread-safe. */
public final class ValueDecoder {
    private final ValueNames names;
    private final boolean unchanging;
    private byte[] bytes = {};
    private int at;

    /**
     * @param names those of the encoder
     * @param unchanging whether the bytes are never changed, so that records can hold parts of them
     */
    public ValueDecoder(ValueNames names, boolean unchanging) {
        this.names = names;
        this.unchanging = unchanging;
    }

    /** {@return a row that stands at some place of some bytes} */
    public @Nullable Value[] row(byte[] from, int place) {
        bytes = from;
        at = place;
        return row();
    }

    /** {@return the first values of a row that stands at some place of some bytes} */
    public @Nullable Value[] row(byte[] from, int place, int count) {
        bytes = from;
        at = place;
        number();
        return values(count);
    }

    /** {@return a value that stands at some place of some bytes} */
    public Value value(byte[] from, int place) {
        bytes = from;
        at = place;
        return value();
    }

    private @Nullable Value[] row() {
        return values((int) number());
    }

    private @Nullable Value[] values(int count) {
        @Nullable Value[] values = new Value[count];
        for (int i = 0; i < values.length; i++) {
            values[i] = valueOrNull();
        }
        return values;
    }

    private @Nullable Value valueOrNull() {
        if (ValueTag.of(bytes[at]) == ValueTag.NONE) {
            at++;
            return null;
        }
        return value();
    }

    private Value value() {
        ValueTag tag = ValueTag.of(bytes[at++]);
        return switch (tag) {
            case NONE -> throw new IllegalStateException("no value where there must be one");
            case ABSENT -> Missing.ABSENT;
            case NULL -> Missing.NULL;
            case TEXT -> TextValue.of(text());
            case PLAIN_TEXT -> plainText();
            case ELEMENT_TEXT -> new ElementText(names.name((int) number()), text());
            case NUMBER -> NumberValue.ofParts(signed(), (int) number());
            case LARGE_NUMBER -> NumberValue.of(new BigDecimal(text()));
            case TRUE -> BooleanValue.of(true);
            case FALSE -> BooleanValue.of(false);
            case DATE -> new DateValue(date());
            case TIME -> new TimeValue(time());
            case LOCAL_DATETIME -> new DateTimeValue(LocalDateTime.of(date(), time()), null);
            case DATETIME ->
                new DateTimeValue(LocalDateTime.of(date(), time()), ZoneOffset.ofTotalSeconds((int) signed()));
            case RECORD -> record();
            case LIST -> ListValue.owned(items());
            case MANY -> Many.owned(items());
        };
    }

    private LocalDate date() {
        return LocalDate.ofEpochDay(signed());
    }

    private LocalTime time() {
        return LocalTime.ofNanoOfDay(number());
    }

    private List<Value> items() {
        int count = (int) number();
        List<Value> items = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            items.add(value());
        }
        return items;
    }

    private RecordValue record() {
        Layout layout = names.layout((int) number());
        int input = (int) number();
        Origin origin = input == 0 ? null : new Origin(names.input(input - 1), number(), number());
        int element = (int) number();
        int together = bytes[at] & 0xFF | (bytes[at + 1] & 0xFF) << Byte.SIZE;
        int begin = at + ValueEncoder.LENGTH_OF_BYTES;
        at = begin + together;
        @Nullable Value[] values = new Value[layout.size()];
        FieldBytes fields = fields(begin, together, values);
        int count = (int) number();
        List<RecordValue.Part> parts = count == 0 ? null : new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            int name = (int) number();
            parts.add(new RecordValue.Part(name == 0 ? null : names.name(name - 1), value()));
        }
        return RecordValue.restored(
                layout, values, fields, origin, element == 0 ? null : names.name(element - 1), parts);
    }

    /** Reads fields; gives those that are bytes. */
    private @Nullable FieldBytes fields(int begin, int together, @Nullable Value[] values) {
        boolean stay = unchanging
                && begin + together <= FieldBytes.MOST_START
                && begin + together + FieldBytes.SPARE <= bytes.length;
        byte[] of = stay || together == 0 ? bytes : copy(begin, together);
        int start = stay ? begin : 0;
        int[] fields = new int[values.length];
        for (int slot = 0; slot < fields.length; slot++) {
            int form = (int) number();
            if (form >= ValueEncoder.LEAST_BYTES) {
                int count = form - ValueEncoder.LEAST_BYTES >> 1;
                fields[slot] = FieldBytes.field((form & 1) != 0, start, count);
                start += count;
            } else if (form == ValueEncoder.VALUE) {
                values[slot] = value();
            }
        }
        return together == 0 ? null : new FieldBytes(of, fields);
    }

    private byte[] copy(int begin, int count) {
        byte[] copy = new byte[count + FieldBytes.SPARE];
        System.arraycopy(bytes, begin, copy, 0, count);
        return copy;
    }

    private TextValue plainText() {
        int count = (int) number();
        at += count;
        return TextValue.ofPlain(bytes, at - count, at);
    }

    private String text() {
        long chars = number();
        int count = (int) (chars / 2);
        if (chars % 2 == 0) {
            at += count;
            return new String(bytes, at - count, count, StandardCharsets.ISO_8859_1);
        }
        char[] text = new char[count];
        for (int i = 0; i < count; i++) {
            text[i] = (char) (bytes[at] << 8 | bytes[at + 1] & 0xFF);
            at += 2;
        }
        return new String(text);
    }

    private long signed() {
        long number = number();
        return number >>> 1 ^ -(number & 1);
    }

    private long number() {
        long number = 0;
        for (int shift = 0; ; shift += 7) {
            byte next = bytes[at++];
            number |= (next & 0x7FL) << shift;
            if (next >= 0) {
                return number;
            }
        }
    }
}
