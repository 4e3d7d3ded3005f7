package dev.morphema.value;

/** The form of characters in UTF-8 (RFC 3629). */
public final class Utf8 {
    private Utf8() {}

    /**
     * {@return how many bytes a character beyond ASCII has, or 0 if there is none}: nothing too
     * long or too large, no half of a surrogate pair, and none of the two codes FFFE and FFFF that
     * stand for no character
     *
     * @param at the first byte
     * @param limit where the bytes end
     */
    public static int length(byte[] bytes, int at, int limit) {
        int first = bytes[at] & 0xFF;
        int length = first < 0xC2 ? 0 : first < 0xE0 ? 2 : first < 0xF0 ? 3 : first < 0xF5 ? 4 : 0;
        if (length == 0 || at + length > limit) {
            return 0;
        }
        int code = first & 0xFF >> length + 1;
        for (int i = 1; i < length; i++) {
            if ((bytes[at + i] & 0xC0) != 0x80) {
                return 0;
            }
            code = code << 6 | bytes[at + i] & 0x3F;
        }
        boolean tooLong = length == 3 && code < 0x800 || length == 4 && code < 0x10000;
        boolean noCharacter = code >= 0xD800 && code <= 0xDFFF || code == 0xFFFE || code == 0xFFFF || code > 0x10FFFF;
        return tooLong || noCharacter ? 0 : length;
    }

    /** {@return whether some bytes are such characters, or ASCII} */
    public static boolean isText(byte[] bytes, int from, int to) {
        int i = from;
        while (i < to) {
            int length = bytes[i] >= 0 ? 1 : length(bytes, i, to);
            if (length == 0) {
                return false;
            }
            i += length;
        }
        return true;
    }
}
