package dev.morphema.benchmarks.hand;

import de.siegmar.fastcsv.reader.AbstractBaseCsvCallbackHandler;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;

/** CSV to JSON: each cell goes from the parser's buffer into the buffer of the output. */
public final class S1 {
    private static final byte[][] NAMES = {
        Sink.bytes("{\"gauge\":\""),
        Sink.bytes("\",\"time\":\""),
        Sink.bytes("\",\"level\":"),
        Sink.bytes(",\"temperature\":\""),
        Sink.bytes("\",\"status\":\""),
        Sink.bytes("\",\"remark\":\"")
    };
    private static final byte[] END = Sink.bytes("\"}");
    private static final byte[] SECONDS = Sink.bytes(":00");

    private S1() {}

    /** Writes one row. */
    private static final class Rows extends AbstractBaseCsvCallbackHandler<Boolean> {
        private final Sink out;
        private long row = -1;

        Rows(Sink out) {
            this.out = out;
        }

        @Override
        protected void handleBegin(long line) {
            row++;
        }

        @Override
        protected void handleField(int column, char[] buffer, int offset, int length, boolean quoted) {
            if (row == 0) {
                return;
            }
            try {
                if (column == 0 && row > 1) {
                    out.put(',');
                }
                out.put(NAMES[column]);
                if (column == 1) {
                    time(buffer, offset);
                } else if (column == 2) {
                    for (int i = offset; i < offset + length; i++) {
                        out.put(buffer[i] == ',' ? '.' : buffer[i]);
                    }
                } else {
                    out.json(buffer, offset, length);
                }
                if (column == 5) {
                    out.put(END);
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        /** From dd.MM.yyyy HH:mm to ISO 8601. */
        private void time(char[] b, int at) throws IOException {
            out.text(b, at + 6, 4);
            out.put('-');
            out.text(b, at + 3, 2);
            out.put('-');
            out.text(b, at, 2);
            out.put('T');
            out.text(b, at + 11, 5);
            out.put(SECONDS);
        }

        @Override
        protected Boolean buildRecord() {
            return true;
        }
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (Sink out = new Sink(file);
                CsvReader<Boolean> rows =
                        CsvReader.builder().fieldSeparator(';').build(new Rows(out), folder.resolve("gauges.csv"))) {
            out.put('[');
            for (Boolean row : rows) {
                // written while it was read
            }
            out.put(']');
            out.put('\n');
        }
    }
}
