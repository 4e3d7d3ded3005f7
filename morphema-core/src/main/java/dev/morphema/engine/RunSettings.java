package dev.morphema.engine;

import dev.morphema.format.Limits;
import dev.morphema.store.Scratch;
import dev.morphema.value.Value;
import java.time.Instant;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What a run is told from outside.
 *
 * @param params the values of parameters by name; a text is converted to the parameter's type
 * @param now what the mapping takes for the present
 * @param random gives what codes that look random come from, in one run always the same
 * @param budget how many bytes groups and sorts may hold in memory, about
 * @param scratch takes what is more than that; the run closes it
 * @param watch follows the run
 * @param limits beyond which it is stopped
 * @param caches of runs before this one, which nobody else uses now; null if there are none
 * @param rejects decides which records the run goes on without; null if it fails with the first
 */
public record RunSettings(
        Map<String, Value> params,
        Instant now,
        Supplier<Random> random,
        long budget,
        Scratch scratch,
        RunWatch watch,
        Limits limits,
        @Nullable RunCaches caches,
        @Nullable Rejects rejects) {
    public RunSettings {
        params = Map.copyOf(params);
    }

    /** A run that fails with the first record that does. */
    public RunSettings(
            Map<String, Value> params,
            Instant now,
            Supplier<Random> random,
            long budget,
            Scratch scratch,
            RunWatch watch,
            Limits limits,
            @Nullable RunCaches caches) {
        this(params, now, random, budget, scratch, watch, limits, caches, null);
    }
}
