package dev.morphema.format;

import dev.morphema.value.FieldName;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields that a mapping writes side by side, each with the value of one field of the same
 * record. What a writer makes of the names is kept here, for the next record, and for the next
 * document of one who keeps what runs learn. Equal only to itself. For one run at a time.
 */
public final class FieldGroup {
    private final List<FieldName> names;
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
     * @param made with all that it depends on, so that other writers know that it is not theirs
     */
    public void keep(Object made) {
        kept = made;
    }
}
