package dev.morphema.value;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** How much memory values take, about: enough to know when there are too many of them. */
public final class ValueSize {
    private static final int OBJECT = 24;
    private static final int REFERENCE = 4;
    private static final int STRING = 48;

    private ValueSize() {}

    /** {@return the bytes that a value and all in it take on the heap, about; 0 for null} */
    public static long of(@Nullable Value value) {
        if (value == null || value instanceof Missing || value instanceof BooleanValue) {
            return 0;
        }
        if (value instanceof TextValue text) {
            return OBJECT + STRING + text.length();
        }
        if (value instanceof RecordValue record) {
            return record.bytes();
        }
        if (value instanceof Many many) {
            return of(many.items());
        }
        if (value instanceof ListValue list) {
            return of(list.items());
        }
        if (value instanceof NumberValue number) {
            return number.bytes();
        }
        return 3 * OBJECT;
    }

    /** {@return the bytes that some values take} */
    public static long of(@Nullable Value[] values) {
        long bytes = OBJECT;
        for (Value value : values) {
            bytes += REFERENCE + of(value);
        }
        return bytes;
    }

    static long of(List<Value> values) {
        long bytes = 3L * OBJECT;
        for (Value value : values) {
            bytes += REFERENCE + of(value);
        }
        return bytes;
    }
}
