package dev.morphema.value;

import java.util.Objects;

/** A text, possibly empty. */
public final class TextValue implements Value {
    /** The empty text. */
    public static final TextValue EMPTY = new TextValue("");

    private final String text;

    private TextValue(String text) {
        this.text = Objects.requireNonNull(text);
    }

    /** {@return the value of a text} */
    public static TextValue of(String text) {
        return text.isEmpty() && EMPTY != null ? EMPTY : new TextValue(text);
    }

    /** {@return the text itself} */
    public String text() {
        return text;
    }

    @Override
    public Kind kind() {
        return Kind.TEXT;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TextValue t && t.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
