package dev.morphema.value;

import org.jspecify.annotations.Nullable;

/** Turns a text of an input into the kind of value that the mapping declared for it. Immutable. */
@FunctionalInterface
public interface Converter {
    /**
     * {@return the converted value}
     *
     * @param value a scalar, neither absent nor null
     * @throws dev.morphema.problem.ProblemException if it cannot be converted; the input's place is
     *     not yet known then
     */
    Value convert(Value value);

    /**
     * {@return what {@link #convert} makes of a text, or null if that is to be asked}; for the
     * common case, in which a reader need not make a text first.
     *
     * @param text in UTF-8, not empty; the common case is in ASCII
     * @param from where it begins
     * @param to where it ends
     */
    default @Nullable Value read(byte[] text, int from, int to) {
        return null;
    }

    /** {@return the kind of the values that {@link #print} prints, or null if it prints none} */
    default @Nullable Kind prints() {
        return null;
    }

    /**
     * Prints what {@link #convert} makes of a text as that is printed, without making a value; for
     * the common case, in which a field only goes through.
     *
     * @param text in UTF-8, not empty; the common case is in ASCII
     * @param from where it begins
     * @param to where it ends
     * @param into with room for {@link FieldBytes#MOST_PRINTED}
     * @return where the printed text ends, or -1 if {@link #convert} is to be asked
     */
    default int print(byte[] text, int from, int to, byte[] into, int at) {
        return -1;
    }
}
