package dev.morphema.csv;

import dev.morphema.value.EightBytes;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Iterator;
import java.util.NoSuchElementException;
import org.jspecify.annotations.Nullable;

/**
 * Finds the cells of CSV (RFC 4180) in the bytes themselves, for encodings in which all marks are single bytes. Reads what
 * the library reads, and refuses what it refuses; it takes half of the time, since no character is made of a cell that nobody
 * wants, and eight bytes are looked at in one step. Not thread-safe.
 */
final class CsvScanner implements Iterator<Value> {
    /** A cell that is longer is refused, as the library does. */
    static final int MOST_BYTES = 1 << 24;

    /** Bytes after those that were read, so that any of them can be the first of eight or sixteen. */
    private static final int SPARE = 2 * Long.BYTES;

    private static final long LINE_FEEDS = EightBytes.all('\n');
    private static final long RETURNS = EightBytes.all('\r');

    /** A row of which so much is known is long: reading goes on until there is twice as much to look at. */
    private static final int LONG_ROW = 1 << 12;

    private final InputStream in;
    private final CsvRowHandler rows;
    private final byte quote;
    private final long quotes;
    private final byte delimiter;
    private final long delimiters;

    /** After the last byte that was read there is a line feed, where the search for one ends. */
    private byte[] buffer;
    /** Where the row at hand begins. */
    private int at;

    private int limit;
    private boolean ended;
    private long line = 1;
    /** Where the row after it begins, and how many lines it has. */
    private int next;

    private int lines;

    private @Nullable Value row;

    /** Tells that the quotes of a row do not fit. */
    static final class BadQuotes extends RuntimeException {
        BadQuotes(String technical) {
            super(technical, null, false, false);
        }
    }

    /** @param bufferSize how many bytes to read at a time, at first */
    CsvScanner(InputStream in, char delimiter, char quote, CsvRowHandler rows, int bufferSize) {
        this.in = in;
        this.buffer = new byte[bufferSize + SPARE];
        this.rows = rows;
        this.quote = (byte) quote;
        this.quotes = EightBytes.all(quote);
        this.delimiter = (byte) delimiter;
        this.delimiters = EightBytes.all(delimiter);
    }

    /** {@return whether cells can be found in the bytes of an encoding, with these marks} */
    static boolean canRead(Charset charset, String delimiter, char quote) {
        boolean bytes = charset.equals(StandardCharsets.UTF_8)
                || charset.equals(StandardCharsets.ISO_8859_1)
                || charset.equals(StandardCharsets.US_ASCII);
        char mark = delimiter.length() == 1 ? delimiter.charAt(0) : '\n';
        return bytes && isMark(mark) && isMark(quote) && mark != quote;
    }

    private static boolean isMark(char c) {
        return c < 0x80 && c != '\n' && c != '\r';
    }

    @Override
    public boolean hasNext() {
        if (row == null) {
            try {
                row = row();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return row != null;
    }

    @Override
    public Value next() {
        if (!hasNext()) {
            throw new NoSuchElementException();
        }
        Value found = row;
        row = null;
        return found;
    }

    /** {@return the next row, or null at the end}; lines with nothing on them are no rows. */
    private @Nullable Value row() throws IOException {
        if (!toRow()) {
            return null;
        }
        rows.handleBegin(line);
        while (!takeCells()) {
            read();
            rows.handleBegin(line);
        }
        at = next;
        line += lines;
        return rows.buildRecord();
    }

    private boolean toRow() throws IOException {
        while (at < limit || read()) {
            byte first = buffer[at];
            if (first != '\n' && first != '\r') {
                return true;
            }
            skipLineEnd(first);
        }
        return false;
    }

    private void skipLineEnd(byte first) throws IOException {
        at++;
        line++;
        if (first == '\r' && (at < limit || read()) && buffer[at] == '\n') {
            at++;
        }
    }

    /** Reads on, the row at hand kept; says whether there is a byte at its place. */
    private boolean read() throws IOException {
        int kept = limit - at;
        int size = buffer.length - SPARE;
        if (kept == size) {
            size = kept * 2;
            buffer = Arrays.copyOf(buffer, size + SPARE);
        } else {
            System.arraycopy(buffer, at, buffer, 0, kept);
        }
        at = 0;
        limit = kept;
        int goal = kept < LONG_ROW ? kept + 1 : Math.min(kept * 2, size);
        while (limit < goal && !ended) {
            int read = in.read(buffer, limit, size - limit);
            ended = read < 0;
            limit += Math.max(read, 0);
        }
        buffer[limit] = '\n';
        return limit > 0;
    }

    /** Takes the cells of the row at hand; says whether all of it has been read, without which they are to be taken again. */
    private boolean takeCells() throws CharacterCodingException {
        byte[] bytes = buffer;
        lines = 0;
        int i = at;
        for (int column = 0; ; column++) {
            int again = rows.takeAgain(column, bytes, i, limit, delimiter);
            if (again > 0) {
                i += again + 1;
                continue;
            }
            if (bytes[i] == quote && i < limit) {
                i = takeQuoted(column, i + 1);
                if (i < 0) {
                    return false;
                }
            } else {
                int start = i;
                long bits = 0;
                long eight = EightBytes.at(bytes, i);
                long marks = marks(eight);
                while (marks == 0) {
                    bits |= eight;
                    i += Long.BYTES;
                    eight = EightBytes.at(bytes, i);
                    marks = marks(eight);
                }
                bits |= EightBytes.before(eight, marks);
                i += EightBytes.first(marks);
                if (i == limit && !ended) {
                    return incomplete(start);
                }
                rows.take(column, bytes, start, i, EightBytes.beyondAscii(bits) == 0, false);
            }
            if (i == limit) {
                next = limit;
                return true;
            }
            if (bytes[i] != delimiter) {
                return lineEnd(i);
            }
            i++;
        }
    }

    private long marks(long eight) {
        return EightBytes.same(eight, delimiters) | lineEnds(eight);
    }

    private static long lineEnds(long eight) {
        return EightBytes.same(eight, LINE_FEEDS) | EightBytes.same(eight, RETURNS);
    }

    private boolean incomplete(int start) {
        if (limit - start >= MOST_BYTES) {
            throw new BadQuotes("a cell has more than " + MOST_BYTES + " bytes");
        }
        return false;
    }

    private boolean lineEnd(int i) {
        next = i + 1;
        lines++;
        if (buffer[i] == '\r') {
            if (next == limit) {
                return ended;
            }
            next += buffer[next] == '\n' ? 1 : 0;
        }
        return true;
    }

    /** Takes a cell in quotes; {@return the place after it, or -1 if that has not been read}. */
    private int takeQuoted(int column, int start) throws CharacterCodingException {
        byte[] bytes = buffer;
        boolean doubled = false;
        long bits = 0;
        int i = start;
        while (true) {
            long eight = EightBytes.at(bytes, i);
            long marks = EightBytes.same(eight, quotes) | lineEnds(eight);
            if (marks == 0) {
                bits |= eight;
                i += Long.BYTES;
                continue;
            }
            bits |= EightBytes.before(eight, marks);
            i += EightBytes.first(marks);
            if (i == limit) {
                if (ended) {
                    throw new BadQuotes("a quote is not closed");
                }
                incomplete(start - 1);
                return -1;
            }
            byte mark = bytes[i++];
            if (i == limit && !ended) {
                return -1;
            }
            if (mark != quote) {
                lines += mark == '\n' || i == limit || bytes[i] != '\n' ? 1 : 0;
            } else if (i < limit && bytes[i] == quote) {
                doubled = true;
                i++;
            } else {
                break;
            }
        }
        if (i < limit && bytes[i] != delimiter && bytes[i] != '\n' && bytes[i] != '\r') {
            throw new BadQuotes("there is text after a closing quote");
        }
        boolean ascii = EightBytes.beyondAscii(bits) == 0;
        if (doubled) {
            byte[] once = withoutDoubled(start, i - 1);
            rows.take(column, once, 0, once.length - SPARE, ascii, true);
        } else {
            rows.take(column, bytes, start, i - 1, ascii, true);
        }
        return i;
    }

    /** {@return the bytes of a cell, each pair of quotes in it as one, and spare ones} */
    private byte[] withoutDoubled(int from, int to) {
        byte[] once = new byte[to - from];
        int length = 0;
        for (int i = from; i < to; i++) {
            once[length++] = buffer[i];
            if (buffer[i] == quote) {
                i++;
            }
        }
        return Arrays.copyOf(once, length + SPARE);
    }
}
