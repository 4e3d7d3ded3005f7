package dev.morphema.value;

/** The kinds of values, with the words that messages use for them. */
public enum Kind {
    ABSENT("absent"),
    NULL("null"),
    TEXT("a text"),
    NUMBER("a number"),
    BOOLEAN("a boolean"),
    DATE("a date"),
    TIME("a time"),
    DATETIME("a datetime"),
    RECORD("a record"),
    LIST("a list"),
    MANY("many values");

    private final String words;

    Kind(String words) {
        this.words = words;
    }

    /** {@return the kind as a sentence uses it, such as "a text"} */
    public String words() {
        return words;
    }

    /** {@return whether a value of this kind can stand in one cell, attribute or text} */
    public boolean isScalar() {
        return this != RECORD && this != LIST && this != MANY;
    }
}
