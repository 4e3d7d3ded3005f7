package dev.morphema.value;

import java.util.Objects;

/** A text, possibly empty. */
public sealed class TextValue extends Value permits ElementText, PlainText {
    /** The empty text. */
    public static final TextValue EMPTY = new TextValue("");

    private final String text;

    TextValue(String text) {
        this.text = Objects.requireNonNull(text);
    }

    /** {@return the value of a text} */
    public static TextValue of(String text) {
        return text.isEmpty() && EMPTY != null ? EMPTY : new TextValue(text);
    }

    /** {@return the text itself} */
    public final String text() {
        return text;
    }

    @Override
    public final Kind kind() {
        return Kind.TEXT;
    }

    @Override
    public final boolean equals(Object other) {
        return this == other || other instanceof TextValue t && t.text.equals(text);
    }

    @Override
    public final int hashCode() {
        return text.hashCode();
    }

    @Override
    public final String toString() {
        return text;
    }
}
