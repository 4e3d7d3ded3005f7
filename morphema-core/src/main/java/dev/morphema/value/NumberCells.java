package dev.morphema.value;

/**
 * Numbers of few digits as two cells of an array: the digits, and how many of them stand after the
 * point. So the sums of a hundred thousand groups lie side by side, and are no objects all over the
 * memory. Two empty cells are zero.
 */
public final class NumberCells {
    /** The cells that a number takes. */
    public static final int SIZE = 2;

    private NumberCells() {}

    /** {@return the number in the cells from a place on} */
    public static NumberValue get(long[] cells, int at) {
        return NumberValue.ofParts(cells[at], (int) cells[at + 1]);
    }

    /**
     * Puts a number into cells; says whether it has so few digits that they hold it, else nothing
     * is changed.
     */
    public static boolean put(long[] cells, int at, NumberValue number) {
        if (number.largeDecimal() != null) {
            return false;
        }
        cells[at] = number.unscaled();
        cells[at + 1] = number.scale();
        return true;
    }

    /**
     * Adds a number to that in the cells; says whether they hold the sum, else nothing is changed.
     */
    public static boolean add(long[] cells, int at, NumberValue number) {
        if (number.largeDecimal() == null && number.scale() == cells[at + 1]) {
            long sum = cells[at] + number.unscaled();
            if (NumberValue.isShort(sum)) {
                cells[at] = sum;
                return true;
            }
        }
        return put(cells, at, get(cells, at).plus(number));
    }

    /**
     * {@return below 0, 0 or above 0, as the number in the cells is less than, equal to or more
     * than another}
     */
    public static int compare(long[] cells, int at, NumberValue number) {
        return number.largeDecimal() == null && number.scale() == cells[at + 1]
                ? Long.compare(cells[at], number.unscaled())
                : get(cells, at).compareTo(number);
    }
}
