package dev.morphema;

import dev.morphema.engine.Run;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.security.SecureRandom;
import java.time.Clock;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** What a run can be told beside its inputs and outputs. Immutable. */
public final class RunOptions {
    /** The parameters have the values that the mapping gives them, the clock is the system's, codes are random. */
    public static final RunOptions DEFAULT = new RunOptions(Map.of(), Clock.systemUTC(), null);

    private final Map<String, Value> params;
    private final Clock clock;
    private final @Nullable Long seed;

    private RunOptions(Map<String, Value> params, Clock clock, @Nullable Long seed) {
        this.params = params;
        this.clock = clock;
        this.seed = seed;
    }

    /** {@return these options and the value of a parameter, as a text that is converted to its type} */
    public RunOptions param(String name, String value) {
        Map<String, Value> more = new HashMap<>(params);
        more.put(Objects.requireNonNull(name), TextValue.of(value));
        return new RunOptions(more, clock, seed);
    }

    /** {@return these options with a clock that {@code now} and {@code today} ask, once for each run} */
    public RunOptions clock(Clock newClock) {
        return new RunOptions(params, Objects.requireNonNull(newClock), seed);
    }

    /** {@return these options with a seed, from which {@code uuid} makes the same codes in each run} */
    public RunOptions seed(long newSeed) {
        return new RunOptions(params, clock, newSeed);
    }

    Map<String, Value> params() {
        return params;
    }

    Run.Settings settings() {
        return new Run.Settings(params, clock.instant(), seed == null ? Unpredictable.RANDOM : new Random(seed));
    }

    /** Made when the first run asks; to make one for each message would take longer than the message. */
    private static final class Unpredictable {
        private static final Random RANDOM = new SecureRandom();
    }
}
