package dev.morphema.value;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The records of a reader that are nothing but bytes left where they stand: one is given again and
 * again, as it is another one anyway as soon as the reader goes on. Not thread-safe.
 */
public final class PassingRecord {
    private final Supplier<Origin> origin;
    private @Nullable RecordValue given;

    /** @param origin of the record at hand; asked for if somebody wants it */
    public PassingRecord(Supplier<Origin> origin) {
        this.origin = origin;
    }

    /** {@return the next record, valid until another one is asked for} */
    public RecordValue next(Layout layout, FieldBytes bytes) {
        RecordValue record = given;
        if (record == null || record.fieldBytes() != bytes || record.layout() != layout) {
            record = RecordValue.passing(layout, bytes, origin);
            given = record;
        } else {
            record.pass();
        }
        return record;
    }
}
