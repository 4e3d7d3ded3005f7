package dev.morphema;

import dev.morphema.value.Value;
import java.util.List;

/**
 * A function written in Java, for mappings to call. Must be safe for use by many threads. Unless it
 * is {@linkplain Trait#NEW_EACH_CALL declared otherwise}, it must give the same result for the same
 * arguments: it is called once, or more often, or not at all, as the plan of the mapping needs it.
 */
@FunctionalInterface
public interface JavaFunction {
    /**
     * {@return the result}; {@link dev.morphema.value.Missing#ABSENT} for none, never Java's null
     *
     * @param arguments of the kinds that the signature asks for; fewer than it names where the last
     *     ones are optional
     * @throws dev.morphema.problem.ProblemException for an argument that the function cannot take;
     *     another exception is taken for a fault of the function, which ends the run as well
     */
    Value call(List<Value> arguments);

    /** What is special about a function. */
    enum Trait {
        /**
         * It is called with absent and null too; else it gives absent if an argument is absent, or
         * null if one is null.
         */
        TAKES_MISSING,
        /**
         * It may give another result on each call, even for the same arguments; no call is left out
         * or put off.
         */
        NEW_EACH_CALL
    }
}
