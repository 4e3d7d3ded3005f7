package dev.morphema.value;

/**
 * Any value. Never Java's {@code null}: "nothing there" is {@link Missing#ABSENT}. Immutable but
 * for {@link RecordValue}.
 *
 * <p>A class and no interface: each step of a rule asks of what kind a value is, and to ask an
 * object for an interface takes several times as long, all the more where several threads do so.
 */
public abstract sealed class Value
        permits Missing, TextValue, NumberValue, BooleanValue, DateValue, TimeValue, DateTimeValue, Composite {
    Value() {}

    /** {@return what kind of value this is} */
    public abstract Kind kind();

    /** {@return whether this is absent or null} */
    public final boolean isMissing() {
        return this instanceof Missing;
    }

    /** {@return whether this can stand in one cell, attribute or text} */
    public final boolean isScalar() {
        return !(this instanceof Composite);
    }

    /** {@return the bytes that {@link #printed} needs at most; 0 if it prints nothing} */
    public int mostBytes() {
        return 0;
    }

    /**
     * Prints the text of a value that is in ASCII, without control characters and without the marks
     * {@code " ' & < > \}, so that most formats can write it as it is.
     *
     * @param into with room for {@link #mostBytes}
     * @return where the text ends, or -1 if it is not like that, or not surely; then {@link
     *     #toString} gives it
     */
    public int printed(byte[] into, int from) {
        return -1;
    }
}
