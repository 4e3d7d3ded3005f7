package dev.morphema.shape;

/** Looks at the digits of texts, of which there are many. */
final class Digits {
    private Digits() {}

    static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    /** {@return whether a text has nothing but digits, and at least one} */
    static boolean isAll(String text) {
        return !text.isEmpty() && end(text, 0, text.length()) == text.length();
    }

    /**
     * {@return the place after the digits that begin at a place, of which no more than so many
     * count}
     */
    static int end(String text, int from, int most) {
        int at = from;
        while (at < text.length() && at - from < most && isDigit(text.charAt(at))) {
            at++;
        }
        return at;
    }
}
