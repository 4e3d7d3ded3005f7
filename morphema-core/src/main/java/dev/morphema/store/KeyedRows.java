package dev.morphema.store;

import dev.morphema.value.Value;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a table by their keys. Not thread-safe while rows are added; then safe for use by
 * many threads.
 */
sealed interface KeyedRows permits SingleRows, ManyRows, RangedRows {
    /**
     * Adds a row.
     *
     * @param range the ends of its range; none in a table without ranges
     * @return a row that there may not be beside it, so that it was not added; or null
     */
    @Nullable
    Value add(KeyCode key, Value row, Value... range);

    /**
     * {@return the row of a key, or many; absent or no items if there is none}
     *
     * @param point a value in the range of the row; absent in a table without ranges
     */
    Value find(KeyCode key, Value point);

    /** {@return all rows, in the order in which they were added} */
    List<Value> all();
}
