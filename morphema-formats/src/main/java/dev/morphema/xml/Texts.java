package dev.morphema.xml;

import dev.morphema.value.WhiteSpace;

/**
 * The text directly in one element, without what its child elements hold.
 *
 * @param trim whether white space at both ends of the whole is dropped
 */
record Texts(String all, boolean trim) {
    /** {@return how many characters there are, white space included} */
    int length() {
        return all.length();
    }

    /** {@return the text without regard to what stands between its pieces} */
    String whole() {
        return trim ? WhiteSpace.trim(all) : all;
    }

    /**
     * {@return the text from one place to another; the ends of the whole are trimmed where that is
     * asked for}
     */
    String between(int from, int to) {
        if (!trim) {
            return all.substring(from, to);
        }
        String trimmed = WhiteSpace.trim(all);
        int begin = all.indexOf(trimmed);
        int end = begin + trimmed.length();
        int start = Math.max(from, begin);
        return start < Math.min(to, end) ? all.substring(start, Math.min(to, end)) : "";
    }
}
