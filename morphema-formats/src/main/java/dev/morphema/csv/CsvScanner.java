package dev.morphema.csv;

import dev.morphema.format.Limits;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Finds the cells of CSV (RFC 4180) in the bytes themselves, for encodings in which all marks are
 * single bytes. Reads what the library reads, and refuses what it refuses; it takes half of the
 * time, since no character is made of a cell that nobody wants, and eight bytes are looked at in
 * one step. Not thread-safe.
 */
final class CsvScanner {
    /**
     * A row of which so much is known is long: reading goes on until there is twice as much to look
     * at.
     */
    private static final int LONG_ROW = 1 << 12;

    private final InputStream in;
    private final CsvRowHandler rows;
    private final RowCells cells;

    /** After the last byte that was read there is a line feed, where the search for one ends. */
    private byte[] buffer;
    /** Where the row at hand begins. */
    private int at;

    private int limit;
    private boolean ended;
    private long line = 1;

    /** @param bufferSize how many bytes to read at a time, at first */
    CsvScanner(InputStream in, char delimiter, char quote, CsvRowHandler rows, int bufferSize, Limits limits) {
        this.in = in;
        this.buffer = new byte[bufferSize + RowCells.SPARE];
        this.rows = rows;
        this.cells = new RowCells(delimiter, quote, limits);
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

    /**
     * {@return the next row, of which cells may be left in the buffer until the next is asked for,
     * or null at the end}; lines with nothing on them are no rows.
     *
     * @throws IOException if reading fails
     */
    @Nullable
    Value next() throws IOException {
        if (!findRow()) {
            return null;
        }
        Value found = rows.row(cells);
        toNextRow();
        return found;
    }

    /** Finds the cells of the next row; says whether there is one. */
    private boolean findRow() throws IOException {
        if (ReadBuffer.isLow(buffer, limit - at, in)) {
            read();
        }
        if (!toRow()) {
            return false;
        }
        rows.handleBegin(line);
        while (!cells.find(buffer, at, limit, ended)) {
            read();
        }
        return true;
    }

    private void toNextRow() {
        int end = cells.end();
        line += cells.lines();
        at = end;
        if (end < limit) {
            at++;
            line++;
            at += buffer[end] == '\r' && at < limit && buffer[at] == '\n' ? 1 : 0;
        }
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
        int size = buffer.length - RowCells.SPARE;
        if (kept == size) {
            size = kept * 2;
            buffer = Arrays.copyOf(buffer, size + RowCells.SPARE);
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
}
