package dev.morphema.value;

/**
 * Reads numbers of at most 18 digits from bytes in one pass: a minus or none, digits, and a point
 * with digits after it or none. To be used again and again. Not thread-safe.
 */
public final class NumberScan {
    private static final int MOST_DIGITS = 18;

    private int end;
    private long unscaled;
    private int scale;
    private boolean asPrinted;

    /**
     * Reads the number that begins at a place.
     *
     * @param limit where the bytes end
     * @return whether there is one, without superfluous zeros at its start; what comes behind it
     *     may make it another
     */
    public boolean read(byte[] bytes, int from, int limit) {
        int first = from < limit && bytes[from] == '-' ? from + 1 : from;
        int i = first;
        long value = 0;
        while (i < limit && bytes[i] >= '0' && bytes[i] <= '9') {
            value = value * 10 + bytes[i] - '0';
            i++;
        }
        int whole = i - first;
        int fraction = 0;
        if (i < limit && bytes[i] == '.') {
            int point = i++;
            while (i < limit && bytes[i] >= '0' && bytes[i] <= '9') {
                value = value * 10 + bytes[i] - '0';
                i++;
            }
            fraction = i - point - 1;
            if (fraction == 0) {
                return false;
            }
        }
        if (whole == 0 || whole + fraction > MOST_DIGITS || whole > 1 && bytes[first] == '0') {
            return false;
        }
        end = i;
        unscaled = first > from ? -value : value;
        scale = fraction;
        asPrinted = value != 0 || first == from;
        return true;
    }

    /** {@return where the number that was read last ends} */
    public int end() {
        return end;
    }

    /** {@return whether it is written as it would be printed}: it is no negative zero */
    public boolean asPrinted() {
        return asPrinted;
    }

    /** {@return its value} */
    public NumberValue value() {
        return NumberValue.ofParts(unscaled, scale);
    }
}
