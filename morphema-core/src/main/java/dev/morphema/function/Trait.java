package dev.morphema.function;

/** What the checker and the planner may rely on about a function; declared beside its signature. */
public enum Trait {
    /**
     * It is called with absent and null too. A function of single values without this trait gives
     * absent if an argument is absent, else null if one is null.
     */
    TAKES_MISSING,
    /** It asks whether there is a value, so that an argument that leads nowhere is no mistake. */
    ASKS_PRESENCE,
    /** Its result has the form of its first argument, or of the items of that. */
    FORM_OF_FIRST,
    /** It gives the fields of its first argument as records with a key and a value. */
    ENTRIES_OF_FIRST,
    /** It gives the values of the fields of its first argument. */
    VALUES_OF_FIRST,
    /** It never gives a value: it fails, or stands for a rule that is still to come. */
    GIVES_NOTHING,
    /** It stands for a rule that is not written yet. */
    UNFINISHED,
    /** It looks into its items; without this trait the items may be empty shells. */
    READS_ITEMS,
    /** It takes the first item, and none after it. */
    ONLY_FIRST,
    /** Each of its items must be a number, or a text that reads as one. */
    NUMERIC_ITEMS,
    /** It compares its items with one another, so that they must be of one kind. */
    ORDERS_ITEMS
}
