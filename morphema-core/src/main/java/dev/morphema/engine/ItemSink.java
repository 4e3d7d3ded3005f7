package dev.morphema.engine;

import dev.morphema.value.Value;
import java.util.List;

/** Takes values one by one. */
@FunctionalInterface
interface ItemSink {
    /**
     * Takes one more value.
     *
     * @return whether more are wanted
     */
    boolean accept(Value value);

    /** Takes some values as long as more are wanted; says whether they still are. */
    default boolean acceptAll(List<Value> items) {
        for (Value item : items) {
            if (!accept(item)) {
                return false;
            }
        }
        return true;
    }
}
