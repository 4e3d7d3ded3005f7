package dev.morphema.value;

import org.jspecify.annotations.Nullable;

/** Turns a text of an input into the kind of value that the mapping declared for it. Immutable. */
@FunctionalInterface
public interface Converter {
    /**
     * {@return the converted value}
     *
     * @param value a scalar, neither absent nor null
     * @throws dev.morphema.problem.ProblemException if it cannot be converted; the input's place is not yet known then
     */
    Value convert(Value value);

    /**
     * {@return what {@link #convert} makes of a text, or null if that is to be asked}; for the common case, in which a
     * reader need not make a text first.
     *
     * @param text in ASCII, not empty
     * @param from where it begins
     * @param to where it ends
     */
    default @Nullable Value read(byte[] text, int from, int to) {
        return null;
    }
}
