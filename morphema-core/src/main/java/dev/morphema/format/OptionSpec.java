package dev.morphema.format;

import java.util.List;

/**
 * An option that a format takes.
 *
 * @param name as the mapping writes it
 * @param form what it may be
 * @param choices the words for {@link Form#CHOICE}, otherwise empty
 */
public record OptionSpec(String name, Form form, List<String> choices) {
    public OptionSpec {
        choices = List.copyOf(choices);
    }

    /** What an option may be. */
    public enum Form {
        /** Any text. */
        TEXT("a text"),
        /** A text of one character. */
        CHARACTER("a text of one character"),
        /** The word true or false. */
        SWITCH("true or false"),
        /** A whole number from 0. */
        COUNT("a whole number"),
        /** One of some words. */
        CHOICE("one of its words"),
        /** A list of texts. */
        TEXTS("a list of texts"),
        /** One text, or a list of texts. */
        TEXT_OR_TEXTS("a text or a list of texts"),
        /** The name of a character encoding. */
        ENCODING("the name of an encoding, such as \"UTF-8\"");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        /** {@return what the option may be, as a sentence says it} */
        public String words() {
            return words;
        }
    }

    /** {@return an option of the given form} */
    public static OptionSpec of(String name, Form form) {
        return new OptionSpec(name, form, List.of());
    }

    /** {@return an option that is one of some words} */
    public static OptionSpec choice(String name, String... choices) {
        return new OptionSpec(name, Form.CHOICE, List.of(choices));
    }
}
