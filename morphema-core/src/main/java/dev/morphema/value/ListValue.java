package dev.morphema.value;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A list that is one thing: a JSON array, or what {@code [ … ]} and {@code split} give. Immutable.
 */
public final class ListValue extends Composite {
    /** The list without items. */
    public static final ListValue EMPTY = new ListValue(List.of());

    private final List<Value> items;

    private ListValue(List<Value> items) {
        this.items = items;
    }

    /** {@return the items in a list of their own} */
    public static ListValue of(List<Value> items) {
        return new ListValue(List.copyOf(items));
    }

    /** {@return items that nobody else changes any more}, without a copy */
    public static ListValue owned(List<Value> items) {
        return new ListValue(items);
    }

    /** {@return the items, not to be changed} */
    public List<Value> items() {
        return items;
    }

    @Override
    public Kind kind() {
        return Kind.LIST;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof ListValue same && same.items.equals(items);
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
