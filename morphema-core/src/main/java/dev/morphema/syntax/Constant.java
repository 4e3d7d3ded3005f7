package dev.morphema.syntax;

import java.util.List;

/**
 * A constant of an option or a type: text, number, word or a list of them.
 *
 * @param span where it stands
 * @param form how it was written
 * @param text the text, the number as spelt, or the word; "" for a list
 * @param items of a list, otherwise empty
 */
public record Constant(Span span, Form form, String text, List<Constant> items) {
    public Constant {
        items = List.copyOf(items);
    }

    /** How a constant was written. */
    public enum Form {
        TEXT,
        NUMBER,
        WORD,
        LIST
    }
}
