package dev.morphema.value;

/**
 * The characters of ASCII that a format cannot have in a text as they are: some marks, and all control characters. Texts
 * without them are copied as bytes. Immutable.
 */
public final class Marks {
    private static final int MOST = 4;
    private static final long SPACES = EightBytes.all(' ');
    private static final String IN_NUMBERS_AND_DATES = "-+.:TZ0123456789";

    private final long first;
    private final long second;
    private final long third;
    private final long fourth;
    private final boolean inNumbersAndDates;

    /** @param marks from one to four characters of ASCII */
    public Marks(String marks) {
        if (marks.isEmpty() || marks.length() > MOST) {
            throw new IllegalArgumentException("not one to four marks: " + marks);
        }
        first = mark(marks, 0);
        second = mark(marks, 1);
        third = mark(marks, 2);
        fourth = mark(marks, 3);
        inNumbersAndDates = marks.chars().anyMatch(mark -> IN_NUMBERS_AND_DATES.indexOf(mark) >= 0);
    }

    private static long mark(String marks, int index) {
        return EightBytes.all(marks.charAt(Math.min(index, marks.length() - 1)));
    }

    /** {@return whether a number, a date or a time may have one of the marks} */
    boolean areInNumbersAndDates() {
        return inNumbersAndDates;
    }

    /** {@return whether one of eight bytes of ASCII is a mark or a control character} */
    private boolean areIn(long eight) {
        return (EightBytes.same(eight, first)
                        | EightBytes.same(eight, second)
                        | EightBytes.same(eight, third)
                        | EightBytes.same(eight, fourth)
                        | EightBytes.below(eight, ' '))
                != 0;
    }

    /**
     * Copies bytes of ASCII if there are no marks and no control characters among them.
     *
     * @param from where they begin, with at least seven more behind the last
     * @param into with room for seven more
     * @return where the copy ends, or -1 if there is none
     */
    int copyWithout(byte[] bytes, int from, int length, byte[] into, int at) {
        int last = length - 1 & -Long.BYTES;
        for (int i = 0; i < last; i += Long.BYTES) {
            long eight = EightBytes.at(bytes, from + i);
            if (areIn(eight)) {
                return -1;
            }
            EightBytes.put(into, at + i, eight);
        }
        long eight = EightBytes.at(bytes, from + last);
        // What stands behind the text is taken for spaces.
        if (areIn(EightBytes.first(eight, length - last, SPACES))) {
            return -1;
        }
        EightBytes.put(into, at + last, eight);
        return at + length;
    }
}
