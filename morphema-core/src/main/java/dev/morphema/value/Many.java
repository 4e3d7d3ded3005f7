package dev.morphema.value;

import java.util.List;

/** Several values side by side, as a path over many gives them; not a thing of its own, so it never nests. */
public record Many(List<Value> items) implements Value {
    /** No values. */
    public static final Many NONE = new Many(List.of());

    public Many {
        items = List.copyOf(items);
    }

    @Override
    public Kind kind() {
        return Kind.MANY;
    }
}
