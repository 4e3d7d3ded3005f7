package dev.morphema.engine;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * A structure that pays only if it is asked for more than once: made on the second request, if it
 * can be made. Not thread-safe.
 */
final class OnDemand<T> {
    private int asked;
    private @Nullable T made;

    /** {@return the structure, or null on the first request, or if it cannot be made} */
    @Nullable
    T get(Supplier<@Nullable T> making) {
        if (asked == 1) {
            made = making.get();
        }
        asked = Math.min(asked + 1, 2);
        return made;
    }
}
