package dev.morphema.value;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Several values side by side, as a path over many gives them; not a thing of its own, so it never
 * nests. Immutable.
 */
public final class Many extends Composite {
    /** No values. */
    public static final Many NONE = new Many(List.of());

    private final List<Value> items;

    private Many(List<Value> items) {
        this.items = items;
    }

    /** {@return the items in a list of their own} */
    public static Many of(List<Value> items) {
        return new Many(List.copyOf(items));
    }

    /** {@return items that nobody else changes any more}, without a copy */
    public static Many owned(List<Value> items) {
        return new Many(items);
    }

    /** {@return the items, not to be changed} */
    public List<Value> items() {
        return items;
    }

    @Override
    public Kind kind() {
        return Kind.MANY;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Many same && same.items.equals(items);
    }

    @Override
    public int hashCode() {
        return Hashing.of(items);
    }

    @Override
    public String toString() {
        return items.toString();
    }
}
