package dev.morphema.benchmarks.hand;

import de.siegmar.fastcsv.reader.AbstractBaseCsvCallbackHandler;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;

/** Takes the cells of a CSV file from the parser's buffer, row by row; the header is left out. */
abstract class Rows extends AbstractBaseCsvCallbackHandler<Boolean> {
    private long row = -1;

    /** One cell of a row that is no header. */
    abstract void cell(int column, char[] buffer, int offset, int length) throws IOException;

    /** A row has ended. */
    abstract void end() throws IOException;

    final void read(Path file) throws IOException {
        read(file, ',');
    }

    final void read(Path file, char delimiter) throws IOException {
        try (CsvReader<Boolean> rows =
                CsvReader.builder().fieldSeparator(delimiter).build(this, file)) {
            for (Boolean ended : rows) {
                // each row was taken while it was read
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    @Override
    protected final void handleBegin(long line) {
        row++;
    }

    @Override
    protected final void handleField(int column, char[] buffer, int offset, int length, boolean quoted) {
        if (row > 0) {
            try {
                cell(column, buffer, offset, length);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    @Override
    protected final Boolean buildRecord() {
        if (row > 0) {
            try {
                end();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return true;
    }
}
