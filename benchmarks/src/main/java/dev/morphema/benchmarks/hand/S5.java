package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * A choice in a decimal: the row in three buffers, the number as a whole number of its smallest
 * unit.
 */
public final class S5 extends Rows {
    private static final char[] BOX = {'B', 'X'};

    private final Sink out;
    private final char[] bill = new char[64];
    private int billLength;
    private final char[] kg = new char[64];
    private int kgLength;

    private S5(Sink out) {
        this.out = out;
    }

    @Override
    void cell(int column, char[] buffer, int offset, int length) throws IOException {
        if (column == 0) {
            System.arraycopy(buffer, offset, bill, 0, length);
            billLength = length;
        } else if (column == 1) {
            System.arraycopy(buffer, offset, kg, 0, length);
            kgLength = length;
        } else {
            out.csv(bill, 0, billLength);
            out.put(',');
            weight(Arrays.equals(BOX, 0, BOX.length, buffer, offset, offset + length));
            out.put(',');
            out.csv(buffer, offset, length);
        }
    }

    /** Divided by a thousand, without the zeros at the end. */
    private void weight(boolean inThousands) throws IOException {
        if (!inThousands) {
            out.text(kg, 0, kgLength);
            return;
        }
        long value = Decimals.hundredths(kg, 0, kgLength);
        int scale = 5;
        while (scale > 0 && value % 10 == 0) {
            value /= 10;
            scale--;
        }
        out.decimal(value, scale);
    }

    @Override
    void end() throws IOException {
        out.put('\n');
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (Sink out = new Sink(file)) {
            out.put(Sink.bytes("bill,weight,kind\n"));
            new S5(out).read(folder.resolve("unsorted.csv"));
        }
    }
}
