package dev.morphema.function;

import dev.morphema.value.Value;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** A function of the language. Immutable. */
public sealed interface Function {
    /** {@return what it takes and gives} */
    Signature signature();

    /** {@return what may be relied on without calling it} */
    Traits traits();

    /**
     * A function of single values.
     *
     * @param maker makes the body for one place of a mapping
     */
    record Scalar(Signature signature, Traits traits, Maker maker) implements Function {}

    /**
     * A function over many values, which skips absent and null.
     *
     * @param starter makes an accumulator for one call
     */
    record Aggregate(Signature signature, Traits traits, Starter starter) implements Function {}

    /**
     * Makes the body of a function for one place of a mapping, so that constant arguments are
     * looked at only once.
     */
    @FunctionalInterface
    interface Maker {
        /**
         * {@return the body}
         *
         * @param constants the arguments that are constants, null for the others
         * @throws IllegalArgumentException if a constant does not fit; the message is for the
         *     author
         */
        Body make(List<@Nullable Value> constants);
    }

    /** Does the work. Safe for use by many threads. */
    @FunctionalInterface
    interface Body {
        /** {@return the result for arguments that are already of the wanted kinds} */
        Value apply(Value[] arguments, Context run);
    }

    /**
     * What a function may know beside its arguments; a run fixes it, so that the same run gives the
     * same result.
     */
    interface Context {
        /** {@return the time at which the run began} */
        Instant now();

        /** {@return the run's source of numbers that look random} */
        Random random();

        /**
         * {@return what a function keeps during the run, such as the layout of the records that it
         * makes}; it changes no result
         *
         * @param owner whose it is
         * @param beginning makes it when it is first asked for
         */
        <T> T kept(Class<T> kind, Object owner, Supplier<T> beginning);
    }

    /** Begins to take in many values. */
    @FunctionalInterface
    interface Starter {
        /** {@return what takes in a part of the values, given the arguments after the first} */
        Partial startPart(Value[] others);

        /** {@return what takes in all values, given the arguments after the first} */
        default Accumulator start(Value[] others) {
            return startPart(others);
        }
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

    /**
     * Takes in a part of many values. Its state can be written down and merged into that of the
     * part before, so that parts may be taken in at different times, or in different places; the
     * result is that of all values in order. Not thread-safe.
     */
    interface Partial extends Accumulator {
        /**
         * {@return all that the values so far have come to, as values that can be written as bytes}
         */
        Value[] state();

        /**
         * Takes in the values that follow those so far.
         *
         * @param state of what took in these, begun with the same arguments
         */
        void merge(Value[] state);
    }
}
