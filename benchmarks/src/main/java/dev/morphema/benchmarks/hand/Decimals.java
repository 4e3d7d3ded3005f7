package dev.morphema.benchmarks.hand;

/**
 * Decimals of a fixed number of digits after the point, as whole numbers of their smallest unit.
 */
final class Decimals {
    private Decimals() {}

    /** {@return a decimal with two digits, from text with at most two} */
    static long hundredths(char[] chars, int offset, int length) {
        long value = 0;
        int after = -1;
        boolean negative = false;
        for (int i = offset; i < offset + length; i++) {
            char c = chars[i];
            if (c == '-') {
                negative = true;
            } else if (c == '.') {
                after = 0;
            } else {
                value = value * 10 + (c - '0');
                after += after >= 0 ? 1 : 0;
            }
        }
        for (int i = Math.max(after, 0); i < 2; i++) {
            value *= 10;
        }
        return negative ? -value : value;
    }

    /** {@return a number divided by ten to some power, rounded half away from zero} */
    static long rounded(long value, long divisor) {
        long half = divisor / 2;
        return value >= 0 ? (value + half) / divisor : -((-value + half) / divisor);
    }
}
