package dev.morphema.syntax;

import org.jspecify.annotations.Nullable;

/**
 * A name as the author wrote it.
 *
 * @param span where it stands
 * @param prefix the prefix before a colon, or null
 * @param text the name itself; a quoted name without its quotes
 */
public record Name(Span span, @Nullable String prefix, String text) {
    /** {@return the name with its prefix, as a mapping writes it} */
    public String qualified() {
        return prefix == null ? text : prefix + ":" + text;
    }
}
