package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * Neighbours written out with a value computed before they are grouped: each row as it comes, a
 * running total.
 */
public final class G4 extends Rows {
    private static final byte[] IMO = Sink.bytes("{\"imo\":\"");
    private static final byte[] LINES = Sink.bytes("\",\"lines\":[");
    private static final byte[] BILL = Sink.bytes("{\"bill\":\"");
    private static final byte[] KG = Sink.bytes("\",\"kg\":");
    private static final byte[] FEE = Sink.bytes(",\"fee\":");
    private static final byte[] TOTAL = Sink.bytes("],\"fee\":");

    private final Sink out;
    private final char[] imo = new char[64];
    private int imoLength = -1;
    private boolean begins;
    private final char[] bill = new char[64];
    private int billLength;
    private long kg;
    private long fees;

    private G4(Sink out) {
        this.out = out;
    }

    @Override
    void cell(int column, char[] buffer, int offset, int length) throws IOException {
        if (column == 1) {
            begins = imoLength < 0 || !Arrays.equals(imo, 0, imoLength, buffer, offset, offset + length);
            if (begins) {
                close();
                System.arraycopy(buffer, offset, imo, 0, length);
                imoLength = length;
            }
        } else if (column == 2) {
            System.arraycopy(buffer, offset, bill, 0, length);
            billLength = length;
        } else if (column == 3) {
            kg = Decimals.hundredths(buffer, offset, length);
        }
    }

    @Override
    void end() throws IOException {
        if (begins) {
            out.put(IMO);
            out.json(imo, 0, imoLength);
            out.put(LINES);
        } else {
            out.put(',');
        }
        out.put(BILL);
        out.json(bill, 0, billLength);
        out.put(KG);
        out.decimal(kg, 2);
        out.put(FEE);
        out.decimal(kg * 25, 4);
        out.put('}');
        fees += kg * 25;
    }

    private void close() throws IOException {
        if (imoLength >= 0) {
            out.put(TOTAL);
            out.decimal(fees, 4);
            out.put('}');
            out.put('\n');
        }
        fees = 0;
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (Sink out = new Sink(file)) {
            G4 work = new G4(out);
            work.read(folder.resolve("sorted.csv"));
            work.close();
        }
    }
}
