package dev.morphema.csv;

import dev.morphema.value.PlainText;
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
 * the library reads, and refuses what it refuses; it takes two thirds of the time, since no character is made of a cell
 * that nobody wants, and of most others a text is made at once. Not thread-safe.
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

    private final InputStream in;
    private final Charset charset;
    private final CsvRowHandler rows;
    private final byte quote;
    private final byte[] kinds = new byte[256];

    private byte[] buffer = new byte[1 << 16];
    private int at;
    private int limit;
    /** Where the text of the cell at hand begins; moves with the bytes. */
    private int start;

    private boolean ended;
    /** The line at hand, and whether the row on it has begun. */
    private long line = 1;

    private @Nullable CellCache[] caches = new CellCache[8];
    private @Nullable Value next;

    /** Tells that the quotes of a row do not fit. */
    static final class BadQuotes extends RuntimeException {
        BadQuotes(String technical) {
            super(technical, null, false, false);
        }
    }

    CsvScanner(InputStream in, Charset charset, char delimiter, char quote, CsvRowHandler rows) {
        this.in = in;
        this.charset = charset;
        this.rows = rows;
        this.quote = (byte) quote;
        for (int i = 0; i < kinds.length; i++) {
            kinds[i] = PlainText.allows(i) ? PLAIN : i < 0x80 ? ASCII : OTHER;
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
        if (next == null) {
            try {
                next = row();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return next != null;
    }

    @Override
    public Value next() {
        if (!hasNext()) {
            throw new NoSuchElementException();
        }
        Value row = next;
        next = null;
        return row;
    }

    /** {@return whether there is a byte at the place at hand}; bytes before the cell at hand may be dropped. */
    private boolean more() throws IOException {
        if (at < limit) {
            return true;
        }
        if (ended) {
            return false;
        }
        int kept = limit - start;
        if (kept == buffer.length) {
            if (kept >= MOST_BYTES) {
                throw new BadQuotes("a cell has more than " + MOST_BYTES + " bytes");
            }
            buffer = Arrays.copyOf(buffer, kept * 2);
        } else if (start > 0) {
            System.arraycopy(buffer, start, buffer, 0, kept);
        }
        at -= start;
        start = 0;
        limit = kept;
        int read = in.read(buffer, limit, buffer.length - limit);
        ended = read < 0;
        limit += Math.max(read, 0);
        return at < limit;
    }

    /** As {@link #more}, between cells: nothing before the place at hand is needed any more. */
    private boolean moreAfterCell() throws IOException {
        start = at;
        return more();
    }

    /** {@return the next row, or null at the end}; lines with nothing on them are no rows. */
    private @Nullable Value row() throws IOException {
        while (moreAfterCell() && (kinds[buffer[at] & 0xFF] == LINE_FEED || kinds[buffer[at] & 0xFF] == RETURN)) {
            lineEnd();
        }
        if (!moreAfterCell()) {
            return null;
        }
        rows.handleBegin(line);
        rows.countRow();
        for (int column = 0; ; column++) {
            cell(column);
            if (!moreAfterCell()) {
                break;
            }
            if (kinds[buffer[at] & 0xFF] != DELIMITER) {
                lineEnd();
                break;
            }
            at++;
            if (!moreAfterCell()) {
                rows.take(column + 1, TextValue.EMPTY, false);
                break;
            }
        }
        return rows.buildRecord();
    }

    private void lineEnd() throws IOException {
        boolean carriageReturn = kinds[buffer[at++] & 0xFF] == RETURN;
        if (carriageReturn && moreAfterCell() && buffer[at] == '\n') {
            at++;
        }
        line++;
    }

    private void cell(int column) throws IOException {
        if (moreAfterCell() && buffer[at] == quote) {
            quoted(column);
            return;
        }
        int seen = 0;
        do {
            int i = at;
            while (i < limit && kinds[buffer[i] & 0xFF] < DELIMITER) {
                seen |= kinds[buffer[i] & 0xFF];
                i++;
            }
            at = i;
        } while (at == limit && more());
        take(column, at, seen, false);
    }

    private void quoted(int column) throws IOException {
        start = ++at;
        boolean doubled = false;
        int seen = 0;
        while (true) {
            if (!more()) {
                throw new BadQuotes("a quote is not closed");
            }
            byte b = buffer[at];
            if (b == quote) {
                at++;
                if (!more() || buffer[at] != quote) {
                    break;
                }
                doubled = true;
            } else {
                seen |= b < 0 ? OTHER : PlainText.allows(b) ? PLAIN : ASCII;
                if (b == '\n' || b == '\r' && byteAfter() != '\n') {
                    line++;
                }
            }
            at++;
        }
        if (at < limit && kinds[buffer[at] & 0xFF] < DELIMITER) {
            throw new BadQuotes("there is text after a closing quote");
        }
        int end = doubled ? withoutDoubled(at - 1) : at - 1;
        take(column, end, doubled ? seen | ASCII : seen, true);
    }

    /** {@return the byte after the one at hand, or -1} */
    private int byteAfter() throws IOException {
        at++;
        int after = more() ? buffer[at] : -1;
        at--;
        return after;
    }

    /** Moves the bytes of a cell together, each pair of quotes to one; {@return where they end then} */
    private int withoutDoubled(int end) {
        int to = start;
        for (int i = start; i < end; i++) {
            buffer[to++] = buffer[i];
            if (buffer[i] == quote) {
                i++;
            }
        }
        return to;
    }

    /** @param seen the kinds of bytes in the cell, together */
    private void take(int column, int end, int seen, boolean quoted) throws CharacterCodingException {
        if (seen < OTHER && start < end) {
            if (rows.wants(column) && !rows.takeTyped(column, buffer, start, end)) {
                rows.take(column, cache(column).text(buffer, start, end, seen == PLAIN), quoted);
            }
            return;
        }
        String text = decoded(end);
        if (rows.wants(column)) {
            rows.take(column, TextValue.of(text), quoted);
        }
    }

    private CellCache cache(int column) {
        if (column >= caches.length) {
            caches = Arrays.copyOf(caches, column + 8);
        }
        CellCache cache = caches[column];
        if (cache == null) {
            cache = new CellCache();
            caches[column] = cache;
        }
        return cache;
    }

    /** Bytes that are no characters are a fault, also in a cell that nobody wants. */
    private String decoded(int end) throws CharacterCodingException {
        String text = new String(buffer, start, end - start, charset);
        return text.indexOf('\uFFFD') < 0
                ? text
                : charset.newDecoder()
                        .decode(ByteBuffer.wrap(buffer, start, end - start))
                        .toString();
    }
}
