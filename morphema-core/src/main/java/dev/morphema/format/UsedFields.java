package dev.morphema.format;

import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;

/**
 * A record that a reader makes field by field: those that the mapping uses are kept, others are
 * not. Not thread-safe.
 */
public final class UsedFields {
    private final Projection projection;
    private final RecordBuilder record;

    /**
     * @param projection what is used of the record
     * @param origin where it stands
     */
    public UsedFields(Projection projection, Origin origin) {
        this.projection = projection;
        this.record = RecordValue.builder(projection.layout(), origin);
    }

    /** {@return whether a field is used, so that a value for it is worth the making} */
    public boolean uses(FieldName name) {
        return projection.keepsAll() || projection.slot(name) >= 0;
    }

    /** {@return what is used of a field, for one that holds more} */
    public Projection of(FieldName name) {
        return projection.child(name);
    }

    /** {@return whether a used field has a value already} */
    public boolean has(FieldName name) {
        return projection.keepsAll()
                ? record.has(name)
                : projection.slot(name) >= 0 && record.has(projection.slot(name));
    }

    /** Gives a field its value; nothing for one that is absent, or not used. */
    public void put(FieldName name, Value value) {
        if (value == Missing.ABSENT) {
            return;
        }
        if (projection.keepsAll()) {
            record.put(name, value);
        } else if (projection.slot(name) >= 0) {
            record.set(projection.slot(name), value);
        }
    }

    /** {@return the record} */
    public RecordValue build() {
        return record.build();
    }
}
