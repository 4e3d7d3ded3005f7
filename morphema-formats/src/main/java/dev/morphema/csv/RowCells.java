package dev.morphema.csv;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.value.EightBytes;
import dev.morphema.value.FieldBytes;
import java.util.Arrays;

/**
 * Finds the cells of a row (RFC 4180): where each ends, in one short loop over eight bytes at a
 * time, before anything is done with any of them. Not thread-safe; used again for each row.
 */
final class RowCells {
    /**
     * How many bytes there are behind a row, so that any of it can be the first of eight or
     * sixteen.
     */
    static final int SPARE = 2 * Long.BYTES;

    private static final int NOT_ALL = -1;
    private static final int FIRST_SIZE = 32;
    private static final long LINE_FEEDS = EightBytes.all('\n');
    private static final long RETURNS = EightBytes.all('\r');

    private final int longestCell;
    private final int mostCells;
    private final byte quote;
    private final long quotes;
    private final byte delimiter;
    private final long delimiters;

    private byte[] bytes = new byte[0];
    private int start;
    private int end;
    /** Where the cells begin, without quotes; with all bits turned if they are not in ASCII. */
    private int[] starts = new int[FIRST_SIZE];
    /** Where the cells end, without quotes; with all bits turned if pairs of quotes are in them. */
    private int[] ends = new int[FIRST_SIZE];

    private int count;
    /** How many lines end within cells of the row. */
    private int lines;

    private boolean ascii;
    /** All bytes of the cell that was found last, in one. */
    private long bits;

    /** Whether a pair of quotes is in the cell in quotes that was found last. */
    private boolean doubled;

    /** Tells that a row goes beyond a limit. */
    static final class TooMuch extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private final Limit limit;

        TooMuch(Limit limit) {
            super(null, null, false, false);
            this.limit = limit;
        }

        Limit limit() {
            return limit;
        }
    }

    /** Tells that the quotes of a row do not fit. */
    static final class BadQuotes extends RuntimeException {
        BadQuotes(String technical) {
            super(technical, null, false, false);
        }
    }

    /**
     * @param delimiter a character of ASCII
     * @param quote another one
     * @param limits of cells and their number
     */
    RowCells(char delimiter, char quote, Limits limits) {
        this.longestCell = limits.mostInt(Limit.TEXT);
        this.mostCells = limits.mostInt(Limit.FIELDS);
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
        ascii = true;
        return findAll(limit, ended);
    }

    private boolean findAll(int limit, boolean ended) {
        byte[] all = bytes;
        int cells = 0;
        int i = start;
        while (true) {
            if (cells == starts.length) {
                checkCount(cells);
                starts = Arrays.copyOf(starts, cells * 2);
                ends = Arrays.copyOf(ends, cells * 2);
            }
            int from = i;
            bits = 0;
            if (all[i] == quote) {
                i = afterQuotes(from, limit, ended);
                if (i == NOT_ALL) {
                    return false;
                }
                starts[cells] = from + 1;
                ends[cells] = doubled ? ~(i - 1) : i - 1;
            } else {
                i = mark(i);
                starts[cells] = from;
                ends[cells] = i;
            }
            if (EightBytes.beyondAscii(bits) != 0) {
                starts[cells] = ~starts[cells];
                ascii = false;
            }
            cells++;
            if (all[i] != delimiter) {
                checkCount(cells);
                count = cells;
                end = i;
                // After a carriage return there may be a line feed.
                return ended || i + (all[i] == '\r' ? 1 : 0) < limit || !isIncomplete(from, limit);
            }
            i++;
        }
    }

    /** {@return the place of the first delimiter or line end from a place on} */
    private int mark(int from) {
        long eight = EightBytes.at(bytes, from);
        long marks = marks(eight);
        if (marks == 0) {
            return markAfter(from, eight);
        }
        bits |= EightBytes.before(eight, marks);
        return from + EightBytes.first(marks);
    }

    private int markAfter(int from, long before) {
        byte[] all = bytes;
        long seen = before;
        int i = from + Long.BYTES;
        long eight = EightBytes.at(all, i);
        long marks = marks(eight);
        while (marks == 0) {
            seen |= eight;
            i += Long.BYTES;
            eight = EightBytes.at(all, i);
            marks = marks(eight);
        }
        bits |= seen | EightBytes.before(eight, marks);
        return i + EightBytes.first(marks);
    }

    private long marks(long eight) {
        return EightBytes.same(eight, delimiters) | lineEnds(eight);
    }

    private static long lineEnds(long eight) {
        return EightBytes.same(eight, LINE_FEEDS) | EightBytes.same(eight, RETURNS);
    }

    private void checkCount(int cells) {
        if (cells > mostCells) {
            throw new TooMuch(Limit.FIELDS);
        }
    }

    private boolean isIncomplete(int begin, int limit) {
        if (limit - begin > longestCell) {
            throw new TooMuch(Limit.TEXT);
        }
        return true;
    }

    /** {@return the place after a cell in quotes, or {@link #NOT_ALL}} */
    private int afterQuotes(int begin, int limit, boolean ended) {
        byte[] all = bytes;
        int i = begin + 1;
        doubled = false;
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

    /** {@return where the row ends} */
    int end() {
        return end;
    }

    /** {@return how many lines end within cells} */
    int lines() {
        return lines;
    }

    /** {@return whether all cells are in ASCII} */
    boolean areAscii() {
        return ascii;
    }

    /** {@return whether a cell is in ASCII}; cells are counted from 0 */
    boolean isAscii(int cell) {
        return starts[cell] >= 0;
    }

    /** {@return where a cell begins, without a quote} */
    int start(int cell) {
        int place = starts[cell];
        return place < 0 ? ~place : place;
    }

    /** {@return the place after a cell, without a quote} */
    int end(int cell) {
        int place = ends[cell];
        return place < 0 ? ~place : place;
    }

    /** {@return whether a cell is in quotes} */
    boolean isQuoted(int cell) {
        int before = start(cell) - 1;
        // Before a cell without them stands a delimiter, or the row before.
        return before >= start && bytes[before] == quote;
    }

    /** {@return whether a pair of quotes stands for one in a cell} */
    boolean hasDoubled(int cell) {
        return ends[cell] < 0;
    }

    /**
     * Adds the text of a cell to the fields of a record; says whether that could be done: it is in
     * ASCII, and not empty.
     */
    boolean addTo(FieldBytes.Row row, int slot, int cell) {
        int from = starts[cell];
        int to = ends[cell];
        return from >= 0 && from < to && row.plain(slot, bytes, from, to);
    }

    /**
     * Makes one quote of each pair in a cell, where it stands: the cell is shorter from now on, and
     * nobody needs the rest.
     */
    void undouble(int cell) {
        byte[] all = bytes;
        int from = start(cell);
        int to = end(cell);
        int at = from;
        for (int i = from; i < to; i++) {
            byte b = all[i];
            all[at++] = b;
            i += b == quote ? 1 : 0;
        }
        ends[cell] = at;
    }
}
