package dev.morphema.value;

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
}
