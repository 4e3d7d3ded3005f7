package dev.morphema.function;

import dev.morphema.value.Value;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** A function of the language. Immutable. */
public sealed interface Function {
    /** {@return what it takes and gives} */
    Signature signature();

    /** {@return whether it is asked whether there is a value: then it is no mistake if there is none} */
    boolean asksForPresence();

    /** {@return whether the same arguments give the same result} */
    Stability stability();

    /** {@return whether its result has the same form as its first argument, as that of {@code first(items)}} */
    boolean passesThrough();

    /**
     * A function of single values.
     *
     * @param acceptsNothing whether it is called with absent and null; if not, it gives absent if an argument is absent,
     *     else null if one is null
     * @param maker makes the body for one place of a mapping
     */
    record Scalar(Signature signature, boolean acceptsNothing, Stability stability, Maker maker) implements Function {
        @Override
        public boolean passesThrough() {
            return false;
        }

        @Override
        public boolean asksForPresence() {
            return acceptsNothing;
        }
    }

    /**
     * A function over many values, which skips absent and null.
     *
     * @param readsItems whether it looks into the values; {@code count} and {@code first} do not
     * @param starter makes an accumulator for one call
     */
    record Aggregate(
            Signature signature, boolean passesThrough, boolean readsItems, boolean asksForPresence, Starter starter)
            implements Function {
        @Override
        public Stability stability() {
            return Stability.PURE;
        }
    }

    /** Makes the body of a function for one place of a mapping, so that constant arguments are looked at only once. */
    @FunctionalInterface
    interface Maker {
        /**
         * {@return the body}
         *
         * @param constants the arguments that are constants, null for the others
         * @throws IllegalArgumentException if a constant does not fit; the message is for the author
         */
        Body make(List<@Nullable Value> constants);
    }

    /** Does the work. Safe for use by many threads. */
    @FunctionalInterface
    interface Body {
        /** {@return the result for arguments that are already of the wanted kinds} */
        Value apply(Value[] arguments, Surroundings run);
    }

    /** What a function may know beside its arguments; a run fixes it, so that the same run gives the same result. */
    interface Surroundings {
        /** {@return the time at which the run began} */
        Instant now();

        /** {@return the run's source of numbers that look random} */
        Random random();
    }

    /** Begins to take in many values. */
    @FunctionalInterface
    interface Starter {
        /** {@return an accumulator, given the arguments after the first} */
        Accumulator start(Value[] others);
    }

    /** Takes in many values one by one. Not thread-safe. */
    interface Accumulator {
        /**
         * Takes one more value, neither absent nor null.
         *
         * @return whether more values can change the result
         */
        boolean add(Value value);

        /** {@return the result} */
        Value result();
    }
}
