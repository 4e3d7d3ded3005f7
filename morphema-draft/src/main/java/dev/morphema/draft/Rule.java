package dev.morphema.draft;

/**
 * What a field can be made of.
 *
 * @param type a type that the field is given, such as {@code number(',')}; empty for none
 * @param expression as the mapping writes it
 * @param about the name of what it is made of, to be compared with that of the field
 * @param cost how far-fetched it is
 * @param leftOut whether a blank value leaves the field out
 */
record Rule(String type, String expression, String about, double cost, boolean leftOut) {
    /** {@return a rule without more} */
    static Rule of(String expression, String about, double cost) {
        return new Rule("", expression, about, cost, false);
    }

    /** {@return the rule, whose field is converted} */
    Rule as(String newType) {
        return new Rule(newType, expression, about, cost + 0.2, leftOut);
    }

    /** {@return the rule, which leaves out what is blank} */
    Rule leavingOutBlank() {
        return new Rule(type, expression, about, cost + 0.1, true);
    }
}
