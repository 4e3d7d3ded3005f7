package dev.morphema.function;

import dev.morphema.value.Value;

/**
 * How a function over many values keeps what it has come to in a few cells of an array, all zero at
 * first, as long as these can hold it; from then on an {@link Function.Accumulator} does.
 * Immutable.
 */
public interface Tally {
    /** {@return how many cells it needs} */
    int size();

    /**
     * Takes one more value, neither absent nor null.
     *
     * @param at the first of its cells
     * @return whether that could be done; if not, the cells are as before
     */
    boolean add(long[] cells, int at, Value value);

    /** {@return whether it only counts values, whatever they are} */
    default boolean counts() {
        return false;
    }

    /** {@return whether what many values come to is the sum of what parts of them come to} */
    default boolean addsUp() {
        return false;
    }

    /** {@return what the values in the cells come to} */
    Value result(long[] cells, int at);

    /** {@return what goes on from where the cells are} */
    Function.Partial resumed(long[] cells, int at);
}
