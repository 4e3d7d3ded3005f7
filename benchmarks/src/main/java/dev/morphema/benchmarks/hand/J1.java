package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/** A join: the smaller side in one array of characters, the larger side is gone through. */
public final class J1 {
    /** The bills, with shipper and consignee of each. */
    private static final class Bills extends Rows {
        private final KeyTable keys = new KeyTable();
        private char[] chars = new char[1 << 16];
        private int[] starts = new int[1 << 12];
        private int used;
        private int bill;

        @Override
        void cell(int column, char[] buffer, int offset, int length) {
            if (column == 0) {
                bill = keys.number(buffer, offset, length);
                if (bill * 2 + 3 > starts.length) {
                    starts = Arrays.copyOf(starts, starts.length * 2);
                }
                return;
            }
            if (used + length > chars.length) {
                chars = Arrays.copyOf(chars, Math.max(chars.length * 2, used + length));
            }
            System.arraycopy(buffer, offset, chars, used, length);
            starts[bill * 2 + column - 1] = used;
            used += length;
            starts[bill * 2 + column] = used;
        }

        @Override
        void end() {
            // all was done cell by cell
        }
    }

    /** The lines, each written with what its bill tells. */
    private static final class Lines extends Rows {
        private final Bills bills;
        private final Sink out;
        private int bill;

        Lines(Bills bills, Sink out) {
            this.bills = bills;
            this.out = out;
        }

        @Override
        void cell(int column, char[] buffer, int offset, int length) throws IOException {
            if (column == 0) {
                bill = bills.keys.find(buffer, offset, length);
                out.csv(buffer, offset, length);
            } else if (column == 1) {
                out.put(',');
                out.csv(buffer, offset, length);
            }
        }

        @Override
        void end() throws IOException {
            for (int field = 0; field < 2; field++) {
                out.put(',');
                if (bill >= 0) {
                    int start = bills.starts[bill * 2 + field];
                    out.csv(bills.chars, start, bills.starts[bill * 2 + field + 1] - start);
                }
            }
            out.put('\n');
        }
    }

    private J1() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        Bills bills = new Bills();
        bills.read(folder.resolve("bills.csv"));
        try (Sink out = new Sink(file)) {
            out.put(Sink.bytes("bill,kg,shipper,consignee\n"));
            new Lines(bills, out).read(folder.resolve("unsorted.csv"));
        }
    }
}
