package dev.morphema.format;

import dev.morphema.value.FieldName;
import java.util.List;

/**
 * Names of fields that a mapping writes side by side, each with the value of one field of the same record. A writer can keep
 * what it makes of the names for the next record. Immutable; equal only to itself.
 */
public final class FieldGroup {
    private final List<FieldName> names;

    /** @param names in the order in which they are written; all of attributes, or none */
    public FieldGroup(List<FieldName> names) {
        this.names = List.copyOf(names);
    }

    /** {@return the names, in order} */
    public List<FieldName> names() {
        return names;
    }
}
