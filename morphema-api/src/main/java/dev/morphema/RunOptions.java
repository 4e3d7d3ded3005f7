package dev.morphema;

import dev.morphema.engine.RunCaches;
import dev.morphema.engine.RunSettings;
import dev.morphema.engine.RunWatch;
import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.output.TemporaryFile;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** What a run can be told beside its inputs and outputs. Immutable. */
public final class RunOptions {
    /**
     * The parameters have the values that the mapping gives them, the clock is the system's, codes
     * are random.
     */
    public static final RunOptions DEFAULT = new RunOptions();

    /** The part of the largest heap that groups and sorts may hold if nothing is said. */
    private static final int PART_OF_HEAP = 4;

    // Set only while a copy is made.
    private Map<String, Value> params = Map.of();
    private Clock clock = Clock.systemUTC();
    private @Nullable Long seed;
    private @Nullable Long memory;
    private @Nullable Integer threads;
    private @Nullable RunControl control;
    private @Nullable Limits limits;
    private @Nullable Duration timeout;
    private @Nullable DocumentCheck check;

    private RunOptions() {}

    private RunOptions copy() {
        RunOptions copy = new RunOptions();
        copy.params = params;
        copy.clock = clock;
        copy.seed = seed;
        copy.memory = memory;
        copy.threads = threads;
        copy.control = control;
        copy.limits = limits;
        copy.timeout = timeout;
        copy.check = check;
        return copy;
    }

    private RunOptions with(Consumer<RunOptions> change) {
        RunOptions copy = copy();
        change.accept(copy);
        return copy;
    }

    /**
     * {@return these options and the value of a parameter, as a text that is converted to its type}
     */
    public RunOptions param(String name, String value) {
        Map<String, Value> more = new HashMap<>(params);
        more.put(Objects.requireNonNull(name), TextValue.of(value));
        return with(copy -> copy.params = Map.copyOf(more));
    }

    /**
     * {@return these options with a clock that {@code now} and {@code today} ask, once for each
     * run}
     */
    public RunOptions clock(Clock newClock) {
        Objects.requireNonNull(newClock);
        return with(copy -> copy.clock = newClock);
    }

    /**
     * {@return these options with a seed, from which {@code uuid} makes the same codes in each run}
     */
    public RunOptions seed(long newSeed) {
        return with(copy -> copy.seed = newSeed);
    }

    /**
     * {@return these options and how much memory {@code group by} and {@code sort by} may take
     * before they use a temporary file}; a quarter of the largest heap if nothing is said. The
     * result is the same with any.
     *
     * @param bytes about
     * @throws IllegalArgumentException if below 0
     */
    public RunOptions memory(long bytes) {
        if (bytes < 0) {
            throw new IllegalArgumentException("memory below 0: " + bytes);
        }
        return with(copy -> copy.memory = bytes);
    }

    /**
     * {@return these options and how many threads a run may use}; as many as there are processors
     * if nothing is said. Inputs of 256 MB and more are then read in threads of their own, those of
     * 4 MB and more if a number is given, or there are several, unless to read ahead would cost
     * more than it brings; the result is the same with any number.
     *
     * @throws IllegalArgumentException if below 1
     */
    public RunOptions threads(int count) {
        if (count < 1) {
            throw new IllegalArgumentException("threads below 1: " + count);
        }
        return with(copy -> copy.threads = count);
    }

    /**
     * {@return these options and what looks whether inputs and outputs are as the schemas say that
     * the mapping names}: inputs before anything is read, outputs before any file takes its place.
     * Outputs that are streams are not looked at.
     */
    public RunOptions validate(DocumentCheck documentCheck) {
        Objects.requireNonNull(documentCheck);
        return with(copy -> copy.check = documentCheck);
    }

    @Nullable
    DocumentCheck check() {
        return check;
    }

    /** {@return these options and what follows or stops the run; of use for one run} */
    public RunOptions control(RunControl newControl) {
        Objects.requireNonNull(newControl);
        return with(copy -> copy.control = newControl);
    }

    /**
     * {@return these options and how much inputs may have and the run may take}; if nothing is
     * said, what {@link Morphema.Builder#limits} said.
     */
    public RunOptions limits(Limits newLimits) {
        Objects.requireNonNull(newLimits);
        return with(copy -> copy.limits = newLimits);
    }

    /**
     * {@return these options and how long the run may take}; a run that takes longer fails with
     * {@code limit}
     */
    public RunOptions timeout(Duration most) {
        Objects.requireNonNull(most);
        return with(copy -> copy.timeout = most);
    }

    /** {@return these options with limits of their own}, which are others if nothing was said. */
    RunOptions within(Limits usual) {
        Limits all = limits == null ? usual : limits;
        if (timeout == null) {
            return all == limits ? this : limits(all);
        }
        Limits timed = all.with(Limit.TIME, Math.max(1, timeout.toMillis()));
        return with(copy -> {
            copy.limits = timed;
            copy.timeout = null;
        });
    }

    Limits limits() {
        return limits == null ? Limits.DEFAULT : limits;
    }

    /** The outputs are in their places. */
    void complete() {
        if (control != null) {
            control.complete();
        }
    }

    /** {@return the inputs within the limits, and followed if somebody wants to follow the run} */
    Inputs followed(Inputs inputs) {
        Limits most = limits();
        // The time of a run is no matter of its inputs.
        boolean limited = !most.areUsualBut(Limit.TIME);
        if (control == null && !limited) {
            return inputs;
        }
        RunControl follower = control == null ? new RunControl() : control;
        Inputs followed = inputs;
        for (Map.Entry<String, List<Input>> source : inputs.bySource().entrySet()) {
            followed = followed.with(
                    source.getKey(),
                    source.getValue().stream()
                            .map(input -> input instanceof FileInput file ? new FileInput(file.file(), most) : input)
                            .map(input -> input.hasBytes() ? new FollowedInput(input, follower, most) : input)
                            .toList());
        }
        return followed;
    }

    /** {@return what reads ahead in a run, beside the thread of the run itself} */
    ReadingThreads readingThreads() {
        return threads == null
                ? new ReadingThreads(Runtime.getRuntime().availableProcessors() - 1, false)
                : new ReadingThreads(threads - 1, true);
    }

    Map<String, Value> params() {
        return params;
    }

    /** @param caches of runs before, or null */
    RunSettings settings(@Nullable RunCaches caches) {
        return new RunSettings(
                params,
                clock.instant(),
                seed == null ? () -> Unpredictable.RANDOM : seeded(seed),
                memory == null ? Runtime.getRuntime().maxMemory() / PART_OF_HEAP : memory,
                new TemporaryFile(),
                control == null ? RunWatch.NONE : control.watch(),
                limits(),
                caches);
    }

    private static Supplier<Random> seeded(long seed) {
        Random random = new Random(seed);
        return () -> random;
    }

    /**
     * Made when the first run asks for a number; to make one for each message would take longer
     * than the message.
     */
    private static final class Unpredictable {
        private static final Random RANDOM = new SecureRandom();
    }
}
