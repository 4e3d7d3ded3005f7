package dev.morphema.value;

/** Any value. Never Java's {@code null}: "nothing there" is {@link Nothing#ABSENT}. */
public sealed interface Value permits Nothing, TextValue, AsciiValue, BooleanValue, RecordValue, ListValue, Many {

    /** {@return what kind of value this is} */
    Kind kind();

    /** {@return whether this is absent or null} */
    default boolean isNothing() {
        return false;
    }
}
