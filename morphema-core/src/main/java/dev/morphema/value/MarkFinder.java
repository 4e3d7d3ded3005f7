package dev.morphema.value;

/** Finds control characters of ASCII, and some marks, among eight bytes. Immutable. */
public final class MarkFinder {
    private static final int MOST = 4;

    /**
     * Turns a quote, which most formats have among their marks, into the first character after the
     * control characters.
     */
    private final long turning;
    /** What is less, turned, is a control character, or a quote if that is a mark. */
    private final long limits;

    private final long first;
    private final boolean more;
    private final long second;
    private final long third;
    private final long fourth;

    /** @param marks from one to four characters of ASCII */
    public MarkFinder(String marks) {
        if (marks.isEmpty() || marks.length() > MOST) {
            throw new IllegalArgumentException("not one to four marks: " + marks);
        }
        boolean quote = marks.indexOf('"') >= 0;
        turning = quote ? EightBytes.all('"' ^ ' ') : 0;
        limits = EightBytes.all(quote ? ' ' + 1 : ' ');
        String others = marks.length() == 1 ? marks : marks.replace("\"", "");
        first = mark(others, 0);
        more = others.length() > 1;
        second = mark(others, 1);
        third = mark(others, 2);
        fourth = mark(others, 3);
    }

    private static long mark(String marks, int index) {
        return EightBytes.all(marks.charAt(Math.min(index, marks.length() - 1)));
    }

    /** {@return marks of the bytes that were found} */
    public long find(long eight) {
        long found = EightBytes.below(eight ^ turning, limits) | EightBytes.same(eight, first);
        return more ? found | others(eight) : found;
    }

    private long others(long eight) {
        return EightBytes.same(eight, second) | EightBytes.same(eight, third) | EightBytes.same(eight, fourth);
    }
}
