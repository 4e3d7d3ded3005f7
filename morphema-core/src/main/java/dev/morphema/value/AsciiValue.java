package dev.morphema.value;

/**
 * A value whose text is in ASCII without control characters and without the marks {@code " ' & < > \}, so that most formats
 * can write it as it is.
 */
public sealed interface AsciiValue extends Value permits PlainText, NumberValue, DateValue, TimeValue, DateTimeValue {
    /** {@return how many bytes the text has at most} */
    int mostBytes();

    /**
     * Prints the text.
     *
     * @param into with room for {@link #mostBytes}
     * @return where the text ends, or -1 if it is so unusual that {@link #toString} must do; then nothing was printed
     */
    int printed(byte[] into, int from);
}
