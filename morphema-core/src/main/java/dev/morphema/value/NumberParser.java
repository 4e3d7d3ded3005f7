package dev.morphema.value;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;

/** Finds numbers in texts: as people write them, and faster where they are of few digits. */
public final class NumberParser {
    private NumberParser() {}

    /** As {@link NumberValue#parse}, but null if the text is no number. */
    public static @Nullable NumberValue read(String text) {
        NumberValue inLongs =
                text.length() > NumberValue.MOST_PRINTED ? null : read(text.toCharArray(), 0, text.length());
        if (inLongs != null) {
            return inLongs;
        }
        String t = WhiteSpace.trim(text);
        return isPlain(t) && t.length() <= NumberValue.MOST_DIGITS ? NumberValue.of(new BigDecimal(t)) : null;
    }

    /**
     * {@return the number that some characters are, if it has the form of {@link #read(byte[], int,
     * int, byte)}, or null}
     */
    public static @Nullable NumberValue read(char[] text, int from, int length) {
        byte[] ascii = new byte[Math.min(length, NumberValue.MOST_PRINTED)];
        for (int i = 0; i < ascii.length; i++) {
            char c = text[from + i];
            ascii[i] = c < 0x80 ? (byte) c : 0;
        }
        return ascii.length < length ? null : read(ascii, 0, length, (byte) '.');
    }

    /**
     * Reads a number from ASCII bytes in the common case: a sign, at most 18 digits, a mark between
     * two of them.
     *
     * @param point the decimal mark
     * @return the number, or null if there is none or it is not of this form
     */
    public static @Nullable NumberValue read(byte[] text, int from, int to, byte point) {
        int first = from < to && text[from] == '-' ? from + 1 : from;
        if (first == to || to - first > NumberValue.MOST_LONG_DIGITS) {
            return null;
        }
        long value = 0;
        int scale = 0;
        for (int i = first; i < to; i++) {
            int digit = text[i] - '0';
            if (digit >= 0 && digit <= 9) {
                value = value * 10 + digit;
            } else if (text[i] == point && scale == 0 && i > first && i < to - 1) {
                scale = to - 1 - i;
            } else {
                return null;
            }
        }
        return NumberValue.ofParts(first > from ? -value : value, scale);
    }

    /**
     * Whether some bytes are a number of at most 18 digits just as it is printed, but for the
     * decimal mark: without superfluous zeros at its start, and no negative zero.
     *
     * @return where the mark stands, or the end if there is none; -1 if it is no such number
     */
    public static int markIfAsPrinted(byte[] text, int from, int to, byte point) {
        int first = from < to && text[from] == '-' ? from + 1 : from;
        boolean zero = first + 1 < to && text[first] == '0' && text[first + 1] != point;
        if (first == to || to - first > NumberValue.MOST_LONG_DIGITS || zero) {
            return -1;
        }
        int mark = to;
        boolean onlyZeros = true;
        for (int i = first; i < to; i++) {
            int digit = text[i] - '0';
            if (digit >= 0 && digit <= 9) {
                onlyZeros &= digit == 0;
            } else if (text[i] == point && mark == to && i > first && i < to - 1) {
                mark = i;
            } else {
                return -1;
            }
        }
        return onlyZeros && first > from ? -1 : mark;
    }

    /**
     * {@return whether a text is a sign, digits and at most one point with digits around it, in
     * ASCII}
     */
    private static boolean isPlain(String t) {
        int i = !t.isEmpty() && (t.charAt(0) == '-' || t.charAt(0) == '+') ? 1 : 0;
        int whole = digits(t, i);
        i += whole;
        if (i < t.length() && t.charAt(i) == '.') {
            int fraction = digits(t, i + 1);
            return whole > 0 && fraction > 0 && i + 1 + fraction == t.length();
        }
        return whole > 0 && i == t.length();
    }

    private static int digits(String t, int from) {
        int i = from;
        while (i < t.length() && t.charAt(i) >= '0' && t.charAt(i) <= '9') {
            i++;
        }
        return i - from;
    }
}
