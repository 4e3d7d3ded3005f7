package dev.morphema.value;

import java.util.List;

/** A list that is one thing: a JSON array, or what {@code [ … ]} and {@code split} give. */
public record ListValue(List<Value> items) implements Value {
    /** The list without items. */
    public static final ListValue EMPTY = new ListValue(List.of());

    public ListValue {
        items = List.copyOf(items);
    }

    @Override
    public Kind kind() {
        return Kind.LIST;
    }
}
