package dev.morphema.format;

import dev.morphema.value.FieldName;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields that a mapping writes side by side, each with the value of one field of the same
 * record. What a writer makes of the names is kept here, for the next record and the next document.
 * Equal only to itself. Safe for use by many threads.
 */
public final class FieldGroup {
    private final List<FieldName> names;
    /** Threads may each put something here; what one finds is complete, since it is immutable. */
    private @Nullable Object kept;

    /** @param names in the order in which they are written; all of attributes, or none */
    public FieldGroup(List<FieldName> names) {
        this.names = List.copyOf(names);
    }

    /** {@return the names, in order} */
    public List<FieldName> names() {
        return names;
    }

    /** {@return what was kept last, by whichever writer; null if nothing was} */
    public @Nullable Object kept() {
        return kept;
    }

    /**
     * Keeps what was made of the names, in place of what was kept before.
     *
     * @param made immutable, with all that it depends on, so that other writers know that it is not
     *     theirs
     */
    public void keep(Object made) {
        kept = made;
    }
}
