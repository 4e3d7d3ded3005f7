package dev.morphema.check;

/** How many values an expression gives. */
enum Card {
    /** One, or nothing. */
    ONE,
    /** Any number, side by side. */
    MANY,
    /** One list. */
    LIST,
    /** Nothing is known before the run. */
    UNKNOWN;

    /** {@return how many the two together give, of which one is taken} */
    Card or(Card other) {
        return this == other ? this : this == MANY || other == MANY ? MANY : UNKNOWN;
    }
}
