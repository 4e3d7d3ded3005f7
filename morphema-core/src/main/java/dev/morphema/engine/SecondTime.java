package dev.morphema.engine;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** What is worth making only for somebody who asks for it again, and perhaps cannot be made. Not thread-safe. */
final class SecondTime<T> {
    private int asked;
    private @Nullable T made;

    /** {@return what was made, or null if it is asked for the first time, or cannot be made} */
    @Nullable
    T get(Supplier<@Nullable T> making) {
        if (asked == 1) {
            made = making.get();
        }
        asked = Math.min(asked + 1, 2);
        return made;
    }
}
