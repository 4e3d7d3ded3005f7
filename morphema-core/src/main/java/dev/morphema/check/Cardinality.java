package dev.morphema.check;

/** How many values an expression gives. */
public enum Cardinality {
    /** One, or nothing. */
    ONE,
    /** Any number, side by side. */
    MANY,
    /** One list. */
    LIST,
    /** Nothing is known before the run. */
    UNKNOWN;

    /** {@return how many the two together give, of which one is taken} */
    Cardinality or(Cardinality other) {
        if (this == other) {
            return this;
        }
        // One side that is a list already shows that several are foreseen.
        boolean foreseen = this == LIST || other == LIST;
        return !foreseen && (this == MANY || other == MANY) ? MANY : UNKNOWN;
    }
}
