package dev.morphema.xml;

import dev.morphema.value.WhiteSpace;
import org.jspecify.annotations.Nullable;

/** The pieces of text directly in one element, which mostly is one piece. Not thread-safe. */
final class Texts {
    private final boolean trim;
    private String first = "";
    private @Nullable StringBuilder all;

    /** @param trim whether white space at both ends of the whole is dropped */
    Texts(boolean trim) {
        this.trim = trim;
    }

    void add(String piece) {
        if (all != null) {
            all.append(piece);
        } else if (first.isEmpty()) {
            first = piece;
        } else {
            all = new StringBuilder(first).append(piece);
        }
    }

    /** {@return how many characters there are so far, white space included} */
    int length() {
        return all == null ? first.length() : all.length();
    }

    /** {@return the text without regard to what stands between its pieces} */
    String whole() {
        String text = all == null ? first : all.toString();
        return trim ? WhiteSpace.trim(text) : text;
    }

    /** {@return the text from one place to another; the ends of the whole are trimmed where that is asked for} */
    String between(int from, int to) {
        String text = all == null ? first : all.toString();
        if (!trim) {
            return text.substring(from, to);
        }
        String trimmed = WhiteSpace.trim(text);
        int begin = text.indexOf(trimmed);
        int end = begin + trimmed.length();
        int start = Math.max(from, begin);
        return start < Math.min(to, end) ? text.substring(start, Math.min(to, end)) : "";
    }
}
