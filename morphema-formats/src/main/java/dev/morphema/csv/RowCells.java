package dev.morphema.csv;

import dev.morphema.value.EightBytes;
import java.util.Arrays;

/**
 * Finds the cells of a row (RFC 4180): where each ends, in one short loop over eight bytes at a time, before anything is done
 * with any of them. Not thread-safe; used again for each row.
 */
final class RowCells {
    /** A cell that is longer is refused, as the library does. */
    static final int MOST_BYTES = 1 << 24;

    /** How many bytes there are behind a row, so that any of it can be the first of eight or sixteen. */
    static final int SPARE = 2 * Long.BYTES;

    private static final int NOT_ALL = -1;
    private static final int FIRST_SIZE = 32;
    private static final long LINE_FEEDS = EightBytes.all('\n');
    private static final long RETURNS = EightBytes.all('\r');

    private final byte quote;
    private final long quotes;
    private final byte delimiter;
    private final long delimiters;

    private byte[] bytes = new byte[0];
    private int start;
    private int[] ends = new int[FIRST_SIZE];
    private int count;
    /** How many lines end within cells of the row. */
    private int lines;
    /** All bytes that were looked at, in one. */
    private long bits;

    private boolean doubled;

    /** Tells that the quotes of a row do not fit. */
    static final class BadQuotes extends RuntimeException {
        BadQuotes(String technical) {
            super(technical, null, false, false);
        }
    }

    /**
     * @param delimiter a character of ASCII
     * @param quote another one
     */
    RowCells(char delimiter, char quote) {
        this.delimiter = (byte) delimiter;
        this.delimiters = EightBytes.all(delimiter);
        this.quote = (byte) quote;
        this.quotes = EightBytes.all(quote);
    }

    /**
     * Finds the cells of a row.
     *
     * @param row has a line feed at its limit, and {@link #SPARE} bytes behind that
     * @param from where the row begins
     * @param ended whether the input ends at the limit
     * @return whether all of the row is there
     * @throws BadQuotes if its quotes do not fit
     */
    boolean find(byte[] row, int from, int limit, boolean ended) {
        bytes = row;
        start = from;
        lines = 0;
        bits = 0;
        doubled = false;
        return findAll(limit, ended);
    }

    private boolean findAll(int limit, boolean ended) {
        byte[] all = bytes;
        int[] found = ends;
        int cells = 0;
        int begin = start;
        int i = start;
        while (true) {
            long eight = EightBytes.at(all, i);
            bits |= eight;
            i += Long.BYTES;
            // Some of these may be none, so what each stands for is looked at.
            for (long marks = marks(eight); marks != 0; marks &= marks - 1) {
                int place = i - Long.BYTES + EightBytes.first(marks);
                byte mark = all[place];
                if (mark == delimiter) {
                    found = cells + 1 == found.length ? moreEnds() : found;
                    found[cells++] = place;
                    begin = place + 1;
                } else if (mark == '\n' || mark == '\r') {
                    found[cells] = place;
                    count = cells + 1;
                    // After a carriage return there may be a line feed.
                    return ended || place + (mark == '\r' ? 1 : 0) < limit || !isIncomplete(begin, limit);
                } else if (mark == quote && place == begin) {
                    i = afterQuotes(begin, limit, ended);
                    if (i == NOT_ALL) {
                        return false;
                    }
                    break;
                }
            }
        }
    }

    private int[] moreEnds() {
        ends = Arrays.copyOf(ends, ends.length * 2);
        return ends;
    }

    private long marks(long eight) {
        return EightBytes.same(eight, delimiters) | EightBytes.same(eight, quotes) | lineEnds(eight);
    }

    private static long lineEnds(long eight) {
        return EightBytes.same(eight, LINE_FEEDS) | EightBytes.same(eight, RETURNS);
    }

    private static boolean isIncomplete(int begin, int limit) {
        if (limit - begin >= MOST_BYTES) {
            throw new BadQuotes("a cell has more than " + MOST_BYTES + " bytes");
        }
        return true;
    }

    /** {@return the place after a cell in quotes, or {@link #NOT_ALL}} */
    private int afterQuotes(int begin, int limit, boolean ended) {
        byte[] all = bytes;
        int i = begin + 1;
        while (true) {
            long eight = EightBytes.at(all, i);
            bits |= eight;
            long marks = EightBytes.same(eight, quotes) | lineEnds(eight);
            if (marks == 0) {
                i += Long.BYTES;
                continue;
            }
            i += EightBytes.first(marks);
            if (i == limit && ended) {
                throw new BadQuotes("a quote is not closed");
            }
            if (i + 1 >= limit && !ended && isIncomplete(begin, limit)) {
                return NOT_ALL;
            }
            byte mark = all[i++];
            if (mark != quote) {
                lines += mark == '\n' || i == limit || all[i] != '\n' ? 1 : 0;
            } else if (i == limit || all[i] != quote) {
                break;
            } else {
                doubled = true;
                i++;
            }
        }
        if (i < limit && all[i] != delimiter && all[i] != '\n' && all[i] != '\r') {
            throw new BadQuotes("there is text after a closing quote");
        }
        return i;
    }

    /** {@return where all cells are found} */
    byte[] bytes() {
        return bytes;
    }

    /** {@return how many cells the row has} */
    int count() {
        return count;
    }

    /** {@return where the last cell ends} */
    int end() {
        return ends[count - 1];
    }

    /** {@return how many lines end within cells} */
    int lines() {
        return lines;
    }

    /** {@return whether all cells are in ASCII; that they are not may also be said where only what follows them is not} */
    boolean areAscii() {
        return EightBytes.beyondAscii(bits) == 0;
    }

    /** {@return whether all from one place to before another is in ASCII} */
    boolean areAscii(int from, int to) {
        for (int i = from; i < to; i++) {
            if (bytes[i] < 0) {
                return false;
            }
        }
        return true;
    }

    /** {@return where a cell begins, or the quote before it}; cells are counted from 0 */
    int start(int cell) {
        return cell == 0 ? start : ends[cell - 1] + 1;
    }

    /** {@return the place after a cell, and the quote after it} */
    int end(int cell) {
        return ends[cell];
    }

    /** {@return whether a cell that begins at a place is in quotes} */
    boolean isQuoted(int begin) {
        return bytes[begin] == quote;
    }

    /** {@return whether a pair of quotes stands for one in some cell} */
    boolean hasDoubled() {
        return doubled;
    }

    /** {@return what stands between quotes, each pair of them in it as one, and {@link #SPARE} bytes} */
    byte[] withoutDoubled(int from, int to) {
        byte[] once = new byte[to - from];
        int length = 0;
        for (int i = from; i < to; i++) {
            once[length++] = bytes[i];
            if (bytes[i] == quote) {
                i++;
            }
        }
        return Arrays.copyOf(once, length + SPARE);
    }
}
