package dev.morphema.value;

/** The one notion of white space: space, tab, carriage return and line feed, as in XML 1.0. */
public final class WhiteSpace {
    private WhiteSpace() {}

    /** {@return whether a character is white space} */
    public static boolean is(int c) {
        return c == ' ' || c == '\t' || c == '\r' || c == '\n';
    }

    /** {@return whether a text holds nothing but white space} */
    public static boolean isBlank(CharSequence text) {
        for (int i = 0; i < text.length(); i++) {
            if (!is(text.charAt(i))) {
                return false;
            }
        }
        return true;
    }

    /** {@return the text without white space at its ends} */
    public static String trim(String text) {
        int from = 0;
        int to = text.length();
        while (from < to && is(text.charAt(from))) {
            from++;
        }
        while (from < to && is(text.charAt(to - 1))) {
            to--;
        }
        return text.substring(from, to);
    }

    /** {@return the text trimmed, with each run of white space inside made one space} */
    public static String normalize(String text) {
        StringBuilder out = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (!is(c)) {
                out.append(c);
            } else if (i > 0 && !is(text.charAt(i - 1))) {
                out.append(' ');
            }
        }
        return trim(out.toString());
    }
}
