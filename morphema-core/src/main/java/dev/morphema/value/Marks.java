package dev.morphema.value;

import java.util.Arrays;

/**
 * The characters of ASCII that a format cannot have in a text as they are: some marks, and all
 * control characters. Texts without them are copied eight bytes at a time. Immutable.
 */
public final class Marks {
    private static final long SPACES = EightBytes.all(' ');
    private static final String IN_NUMBERS_AND_DATES = "-+.:TZ0123456789";

    private final MarkFinder finder;
    private final boolean inNumbersAndDates;
    private final byte[][] written;

    /**
     * @param marks from one to four characters of ASCII
     * @param written for each character of ASCII what stands for it, at most six bytes; null for
     *     those that stand for themselves, and for control characters that nothing stands for
     */
    public Marks(String marks, byte[][] written) {
        finder = new MarkFinder(marks);
        inNumbersAndDates = marks.chars().anyMatch(mark -> IN_NUMBERS_AND_DATES.indexOf(mark) >= 0);
        this.written = Arrays.copyOf(written, written.length);
    }

    /**
     * As the other, for marks that nothing stands for: a text has none of them, or is written in
     * another way.
     */
    public Marks(String marks) {
        this(marks, new byte[0][]);
    }

    /** {@return whether a number, a date or a time may have one of the marks} */
    boolean areInNumbersAndDates() {
        return inNumbersAndDates;
    }

    /** {@return whether one of eight bytes is a mark or a control character} */
    private boolean areIn(long eight) {
        return finder.find(eight) != 0;
    }

    /**
     * Copies a text, with what stands for marks in their place.
     *
     * @param bytes in UTF-8, or in ASCII
     * @param from where they begin, with at least seven more behind the last
     * @param length how many there are, at least one
     * @param into with room for as many, and seven more
     * @return where the copy ends, or -1 if there is something that nothing stands for, or no room
     *     for what stands for it
     */
    int copy(byte[] bytes, int from, int length, byte[] into, int at) {
        // Most are short. A loop for these would take longer to begin than to go through; what
        // stands behind is taken
        // for spaces.
        long eight = EightBytes.at(bytes, from);
        if (length > Long.BYTES || areIn(EightBytes.first(eight, length, SPACES))) {
            return copyOther(eight, bytes, from, length, into, at);
        }
        EightBytes.put(into, at, eight);
        return at + length;
    }

    private int copyOther(long first, byte[] bytes, int from, int length, byte[] into, int at) {
        return length <= Long.BYTES || areIn(first)
                ? copyOneByOne(bytes, from, from + length, into, at)
                : copyLonger(first, bytes, from, length, into, at);
    }

    private int copyLonger(long first, byte[] bytes, int from, int length, byte[] into, int at) {
        EightBytes.put(into, at, first);
        int last = length - Long.BYTES;
        for (int i = Long.BYTES; i < last; i += Long.BYTES) {
            long eight = EightBytes.at(bytes, from + i);
            if (areIn(eight)) {
                return copyOneByOne(bytes, from + i, from + length, into, at + i);
            }
            EightBytes.put(into, at + i, eight);
        }
        // The last eight are partly those before, which have no mark.
        long eight = EightBytes.at(bytes, from + last);
        if (areIn(eight)) {
            int done = Math.max(Long.BYTES, last / Long.BYTES * Long.BYTES);
            return copyOneByOne(bytes, from + done, from + length, into, at + done);
        }
        EightBytes.put(into, at + last, eight);
        return at + length;
    }

    private int copyOneByOne(byte[] bytes, int from, int to, byte[] into, int place) {
        if (written.length == 0) {
            return -1;
        }
        int at = place;
        for (int i = from; i < to; i++) {
            byte b = bytes[i];
            byte[] other = b < 0 ? null : written[b];
            if (other != null) {
                if (at + other.length + to - i > into.length) {
                    return -1;
                }
                System.arraycopy(other, 0, into, at, other.length);
                at += other.length;
            } else if (b >= 0 && b < ' ') {
                return -1;
            } else {
                into[at++] = b;
            }
        }
        return at;
    }
}
