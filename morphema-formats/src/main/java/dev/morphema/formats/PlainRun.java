package dev.morphema.formats;

import dev.morphema.value.EightBytes;
import dev.morphema.value.MarkFinder;
import dev.morphema.value.Utf8;

/**
 * Finds where bytes end that stand for themselves: before a mark, a control character, or a byte
 * beyond ASCII. Immutable.
 */
public final class PlainRun {
    private final MarkFinder finder;

    /** @param marks from one to four characters of ASCII */
    public PlainRun(String marks) {
        finder = new MarkFinder(marks);
    }

    /**
     * {@return the place of the first byte from one on that does not stand for itself; at most the
     * limit}
     *
     * @param buffer with at least seven bytes behind the limit
     */
    public int end(byte[] buffer, int from, int limit) {
        for (int i = from; i < limit; i += Long.BYTES) {
            long found = found(EightBytes.at(buffer, i));
            if (found != 0) {
                return Math.min(limit, i + EightBytes.first(found));
            }
        }
        return limit;
    }

    /**
     * {@return as {@link #end}, but where characters beyond ASCII stand for themselves too}; the
     * limit if one of these is wrong, or cut there
     *
     * @param buffer in UTF-8, with at least seven bytes behind the limit
     */
    public int endOfText(byte[] buffer, int from, int limit) {
        int end = end(buffer, from, limit);
        while (end < limit && buffer[end] < 0) {
            int length = Utf8.length(buffer, end, limit);
            end = length > 0 ? end(buffer, end + length, limit) : limit;
        }
        return end;
    }

    private long found(long eight) {
        return finder.find(eight) | EightBytes.beyondAscii(eight);
    }
}
