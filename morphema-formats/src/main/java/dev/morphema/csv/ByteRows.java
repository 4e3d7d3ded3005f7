package dev.morphema.csv;

import dev.morphema.formats.ByteSink;
import dev.morphema.value.Marks;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/**
 * Rows in UTF-8, written straight into the bytes of the output; the same bytes as the library
 * writes.
 */
final class ByteRows implements CsvRows {
    private static final String IN_NUMBERS = "-.0123456789";

    private final ByteSink out;
    private final char delimiter;
    private final char quote;
    private final byte[] lineEnd;
    /** Whether no number can hold a mark, so that none needs quotes. */
    private final boolean numbersArePlain;

    private final boolean quoteIsNeverPlain;
    private final Marks marks;
    /** At the start of a line a # may be taken for a comment. */
    private final Marks marksAtStart;
    /** Between quotes. */
    private final Marks marksInQuotes;

    private final ByteSink.Escape plain = new ByteSink.Escape(new byte[128][]);
    private final ByteSink.Escape quoted;

    ByteRows(OutputStream out, char delimiter, char quote, byte[] lineEnd) {
        this.out = new ByteSink(out);
        this.delimiter = delimiter;
        this.quote = quote;
        this.lineEnd = lineEnd;
        this.numbersArePlain = IN_NUMBERS.indexOf(delimiter) < 0 && IN_NUMBERS.indexOf(quote) < 0;
        this.quoteIsNeverPlain = !TextValue.isPlain(quote);
        this.marks = new Marks("" + delimiter + quote);
        this.marksAtStart = new Marks("" + delimiter + quote + '#');
        byte[][] doubled = new byte[128][];
        doubled[quote] = new byte[] {(byte) quote, (byte) quote};
        this.quoted = new ByteSink.Escape(doubled);
        this.marksInQuotes = new Marks("" + quote, inQuotes(doubled));
    }

    /**
     * Of control characters only the ends of lines need quotes; texts with others are looked at
     * more closely.
     */
    private static byte[][] inQuotes(byte[][] doubled) {
        byte[][] written = doubled.clone();
        for (char end : new char[] {'\n', '\r'}) {
            written[end] = new byte[] {(byte) end};
        }
        return written;
    }

    @Override
    public void write(@Nullable Value[] cells) {
        write(cells, new RecordValue[cells.length], new int[0]);
    }

    @Override
    public void write(@Nullable Value[] cells, @Nullable RecordValue[] records, int[] slots) {
        for (int i = 0; i < cells.length; i++) {
            if (i > 0) {
                out.write(delimiter);
            }
            RecordValue record = records[i];
            if (record == null && cells.length == 1 && isMissing(cells[i])) {
                // An empty line would be no row.
                out.write(quote);
                out.write(quote);
            } else if (record == null) {
                write(cells[i], i == 0);
            } else if (!writeBytes(record, slots[i], i == 0)) {
                write(record.get(slots[i]), i == 0);
            }
        }
        out.write(lineEnd);
    }

    private static boolean isMissing(@Nullable Value cell) {
        return cell == null || cell.isMissing();
    }

    /**
     * Writes a field that is there as bytes, in quotes if it needs them; says whether that could be
     * done.
     */
    private boolean writeBytes(RecordValue record, int slot, boolean first) {
        return first
                ? out.write(record, slot, marksAtStart)
                : out.write(record, slot, marks) || out.write(quote, record, slot, marksInQuotes);
    }

    private void write(@Nullable Value cell, boolean first) {
        if (cell instanceof NumberValue number && numbersArePlain) {
            out.write(number, plain);
        } else if (cell instanceof TextValue text && writePlain(text, first)) {
            return;
        } else if (cell != null && !cell.isMissing()) {
            write(cell.toString(), first);
        }
    }

    private boolean writePlain(TextValue text, boolean first) {
        // At the start of a line a # may be taken for a comment.
        boolean comment = first && text.isPlain() && text.eightFrom(0) >>> 56 == '#';
        return quoteIsNeverPlain && !comment && out.writePlainWithout(delimiter, text);
    }

    private void write(String text, boolean first) {
        if (needsQuotes(text, first)) {
            out.write(quote);
            out.write(text, quoted);
            out.write(quote);
        } else {
            out.write(text, plain);
        }
    }

    private boolean needsQuotes(String text, boolean first) {
        if (text.isEmpty() || first && text.charAt(0) == '#') {
            return true;
        }
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == delimiter || c == quote || c == '\n' || c == '\r') {
                return true;
            }
        }
        return false;
    }

    @Override
    public boolean mark() {
        out.mark();
        return true;
    }

    @Override
    public void rewind() {
        out.rewind();
    }

    @Override
    public void flush() throws IOException {
        out.flush();
    }
}
