package dev.morphema.syntax;

import java.util.List;

/**
 * A token of the mapping language.
 *
 * @param kind what it is
 * @param text names, numbers and symbols as spelt; raw texts without quotes; "" for templates
 * @param parts of a template, otherwise empty
 * @param span where it stands
 * @param firstOnLine whether nothing but blanks stands before it on its line
 */
record Token(Kind kind, String text, List<Part> parts, Span span, boolean firstOnLine) {
    enum Kind {
        NAME("a name"),
        NUMBER("a number"),
        TEXT("a text"),
        RAW("a raw text"),
        SYMBOL("a symbol"),
        END("the end");

        final String words;

        Kind(String words) {
            this.words = words;
        }
    }

    /** A piece of a template: either plain text or the tokens of an expression. */
    sealed interface Part permits Plain, Embedded {}

    /** Text as it will be, escapes resolved. */
    record Plain(String text) implements Part {}

    /** The tokens between braces, with an END at the closing one. */
    record Embedded(List<Token> tokens) implements Part {}

    boolean is(String symbol) {
        return kind == Kind.SYMBOL && text.equals(symbol);
    }

    boolean isWord(String word) {
        return kind == Kind.NAME && text.equals(word);
    }

    /** {@return whether this token follows the other without a blank} */
    boolean touches(Token before) {
        return before.span.end() == span.start();
    }

    /** {@return how a message names this token} */
    String words() {
        return switch (kind) {
            case NAME, NUMBER, SYMBOL -> "\"" + text + "\"";
            case TEXT, RAW -> "the text " + span.text();
            case END -> "the end";
        };
    }
}
