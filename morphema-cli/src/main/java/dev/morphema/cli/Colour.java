package dev.morphema.cli;

/** The colours of what is shown, by its meaning. Escapes of ISO 6429 (ECMA-48). */
enum Colour {
    ERROR("1;31"),
    WARNING("1;33"),
    HELP("32"),
    /** The name of a field, a tag, the name of a target. */
    NAME("36"),
    /** What only joins the rest: places, line marks, brackets. */
    FAINT("2"),
    PASSED("32"),
    FAILED("31");

    private final String code;

    Colour(String code) {
        this.code = code;
    }

    String begin() {
        return "\u001B[" + code + "m";
    }

    static String end() {
        return "\u001B[0m";
    }

    /** {@return a text in this colour, or as it is} */
    String of(String text, boolean colours) {
        return colours ? begin() + text + end() : text;
    }
}
