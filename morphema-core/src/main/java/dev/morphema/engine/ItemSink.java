package dev.morphema.engine;

import dev.morphema.value.Value;

/** Takes values one by one. */
@FunctionalInterface
interface ItemSink {
    /**
     * Takes one more value.
     *
     * @return whether more are wanted
     */
    boolean accept(Value value);
}
