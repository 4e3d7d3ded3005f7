package dev.morphema.store;

import dev.morphema.value.Many;
import dev.morphema.value.Value;

/** What a table finds. */
public interface Lookup {
    /** {@return the row, or rows, of a key; absent if there is none} */
    Value find(Value[] asked);

    /** {@return all rows, in order} */
    Many rows();
}
