package dev.morphema.csv;

import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
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
 * wants, and plain texts stay bytes. Not thread-safe.
 */
final class CsvScanner implements Iterator<Value> {
    /** A cell that is longer is refused, as the library does. */
    static final int MOST_BYTES = 1 << 24;

    private static final byte PLAIN = 0;
    private static final byte ASCII = 1;
    private static final byte OTHER = 2;
    private static final byte DELIMITER = 4;
    private static final byte LINE_FEED = 5;
    private static final byte RETURN = 6;

    /** A small input has no more texts to remember than one in so many bytes. */
    private static final int BYTES_OF_A_TEXT = 32;

    /** What a cell may be beside the kinds of its bytes. */
    private static final int QUOTED = 8;

    private static final int DOUBLED = 16;

    /** A row of which so much is known is long: reading goes on until there is twice as much to look at. */
    private static final int LONG_ROW = 1 << 12;

    private final InputStream in;
    private final Charset charset;
    private final CsvRowHandler rows;
    private final byte quote;
    private final byte[] kinds = new byte[256];

    private byte[] buffer;
    private final int cacheSize;
    /** Where the row at hand begins. */
    private int at;

    private int limit;
    private boolean ended;
    private long line = 1;

    // What was found of the row at hand.
    /** For each cell where its text begins and ends, and what it is. */
    private int[] cells = new int[3 * 32];

    private int count;
    private int next;
    private int lines;

    private @Nullable CellCache[] caches = new CellCache[8];
    private @Nullable Value row;

    /** Tells that the quotes of a row do not fit. */
    static final class BadQuotes extends RuntimeException {
        BadQuotes(String technical) {
            super(technical, null, false, false);
        }
    }

    /** @param bufferSize how many bytes to read at a time, at first */
    CsvScanner(InputStream in, Charset charset, char delimiter, char quote, CsvRowHandler rows, int bufferSize) {
        this.in = in;
        this.buffer = new byte[bufferSize];
        this.cacheSize = bufferSize / BYTES_OF_A_TEXT;
        this.charset = charset;
        this.rows = rows;
        this.quote = (byte) quote;
        for (int i = 0; i < kinds.length; i++) {
            kinds[i] = TextValue.isPlain(i) ? PLAIN : i < 0x80 ? ASCII : OTHER;
        }
        kinds[delimiter] = DELIMITER;
        kinds['\n'] = LINE_FEED;
        kinds['\r'] = RETURN;
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
        do {
            if (at == limit && !read()) {
                return null;
            }
        } while (skipEmptyLine());
        rows.handleBegin(line);
        while (!find()) {
            read();
        }
        rows.countRow();
        for (int column = 0; column < count; column++) {
            take(column);
        }
        at = next;
        line += lines;
        return rows.buildRecord();
    }

    private boolean skipEmptyLine() throws IOException {
        int kind = kinds[buffer[at] & 0xFF];
        if (kind != LINE_FEED && kind != RETURN) {
            return false;
        }
        at++;
        line++;
        if (kind == RETURN && (at < limit || read()) && buffer[at] == '\n') {
            at++;
        }
        return true;
    }

    /** Reads on, the row at hand kept; says whether there is a byte at its place. */
    private boolean read() throws IOException {
        int kept = limit - at;
        if (kept == buffer.length) {
            buffer = Arrays.copyOf(buffer, kept * 2);
        } else {
            System.arraycopy(buffer, at, buffer, 0, kept);
        }
        at = 0;
        limit = kept;
        int goal = kept < LONG_ROW ? kept + 1 : Math.min(kept * 2, buffer.length);
        while (limit < goal && !ended) {
            int read = in.read(buffer, limit, buffer.length - limit);
            ended = read < 0;
            limit += Math.max(read, 0);
        }
        return limit > 0;
    }

    /** Finds the cells of the row at hand; says whether all of it has been read. */
    private boolean find() {
        byte[] bytes = buffer;
        byte[] kindOf = kinds;
        int end = limit;
        count = 0;
        lines = 0;
        for (int i = at; ; i++) {
            int start = i;
            int seen = 0;
            if (i < end && bytes[i] == quote) {
                i = quoted(i);
                if (i < 0) {
                    return false;
                }
            } else {
                int kind;
                while (i < end && (kind = kindOf[bytes[i] & 0xFF]) < DELIMITER) {
                    seen |= kind;
                    i++;
                }
                cell(start, i, seen);
            }
            if (i == end) {
                next = end;
                return ended || incomplete(start);
            }
            int mark = kindOf[bytes[i] & 0xFF];
            if (mark != DELIMITER) {
                return lineEnd(i, mark);
            }
        }
    }

    private boolean incomplete(int start) {
        if (limit - start >= MOST_BYTES) {
            throw new BadQuotes("a cell has more than " + MOST_BYTES + " bytes");
        }
        return false;
    }

    private boolean lineEnd(int i, int mark) {
        next = i + 1;
        lines++;
        if (mark == RETURN) {
            if (next == limit) {
                return ended;
            }
            next += buffer[next] == '\n' ? 1 : 0;
        }
        return true;
    }

    private void cell(int from, int to, int what) {
        int place = 3 * count++;
        if (place == cells.length) {
            cells = Arrays.copyOf(cells, place * 2);
        }
        cells[place] = from;
        cells[place + 1] = to;
        cells[place + 2] = what;
    }

    /** Finds the end of a cell in quotes; {@return the place after it, or -1 if that has not been read}. */
    private int quoted(int start) {
        int what = QUOTED;
        int i = start + 1;
        while (true) {
            if (i == limit) {
                if (ended) {
                    throw new BadQuotes("a quote is not closed");
                }
                incomplete(start);
                return -1;
            }
            byte b = buffer[i++];
            if (b == quote) {
                if (i == limit && !ended) {
                    return -1;
                }
                if (i == limit || buffer[i] != quote) {
                    break;
                }
                what |= DOUBLED | ASCII;
                i++;
            } else {
                what |= b < 0 ? OTHER : TextValue.isPlain(b) ? PLAIN : ASCII;
                if (b == '\n' || b == '\r') {
                    if (i == limit && !ended) {
                        return -1;
                    }
                    lines += b == '\n' || i == limit || buffer[i] != '\n' ? 1 : 0;
                }
            }
        }
        if (i < limit && kinds[buffer[i] & 0xFF] < DELIMITER) {
            throw new BadQuotes("there is text after a closing quote");
        }
        cell(start + 1, i - 1, what);
        return i;
    }

    private void take(int column) throws CharacterCodingException {
        int from = cells[3 * column];
        int to = cells[3 * column + 1];
        int what = cells[3 * column + 2];
        boolean wanted = rows.wants(column);
        if ((what & (OTHER | DOUBLED)) != 0) {
            // Bytes that are no characters are a fault, also in a cell that nobody wants.
            String text = (what & DOUBLED) == 0 ? decoded(buffer, from, to) : withoutDoubled(from, to);
            if (wanted) {
                rows.take(column, TextValue.of(text), (what & QUOTED) != 0);
            }
        } else if (wanted && from == to) {
            rows.take(column, TextValue.EMPTY, (what & QUOTED) != 0);
        } else if (wanted && !rows.takeTyped(column, buffer, from, to)) {
            rows.take(column, text(column, from, to, what), (what & QUOTED) != 0);
        }
    }

    /** {@return the text of a cell in ASCII}; as its bytes are Latin 1 too, they are read as such, which is faster. */
    private TextValue text(int column, int from, int to, int what) {
        return (what & ASCII) == 0
                ? cache(column).text(buffer, from, to)
                : TextValue.of(new String(buffer, from, to - from, StandardCharsets.ISO_8859_1));
    }

    /** {@return the text of a cell, each pair of quotes in it as one} */
    private String withoutDoubled(int from, int to) throws CharacterCodingException {
        byte[] once = new byte[to - from];
        int length = 0;
        for (int i = from; i < to; i++) {
            once[length++] = buffer[i];
            if (buffer[i] == quote) {
                i++;
            }
        }
        return decoded(once, 0, length);
    }

    private CellCache cache(int column) {
        if (column >= caches.length) {
            caches = Arrays.copyOf(caches, column + 8);
        }
        CellCache cache = caches[column];
        if (cache == null) {
            cache = new CellCache(cacheSize);
            caches[column] = cache;
        }
        return cache;
    }

    private String decoded(byte[] bytes, int from, int to) throws CharacterCodingException {
        String text = new String(bytes, from, to - from, charset);
        return text.indexOf('\uFFFD') < 0
                ? text
                : charset.newDecoder()
                        .decode(ByteBuffer.wrap(bytes, from, to - from))
                        .toString();
    }
}
