package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * Members of groups in any order, written out: all rows in arrays, each with the next one of its
 * group.
 */
public final class G5 extends Rows {
    private static final int NONE = -1;
    private static final byte[] BILL = Sink.bytes("{\"bill\":\"");
    private static final byte[] LINES = Sink.bytes("\",\"lines\":[");
    private static final byte[] KIND = Sink.bytes("{\"kind\":\"");
    private static final byte[] KG = Sink.bytes("\",\"kg\":");
    private static final byte[] FEE = Sink.bytes(",\"fee\":");
    private static final byte[] TOTAL = Sink.bytes("],\"fee\":");

    private final KeyTable bills = new KeyTable();
    private final KeyTable kinds = new KeyTable();
    private int[] first = new int[1 << 11];
    private int[] last = new int[1 << 11];
    private int[] next = new int[1 << 12];
    private int[] kind = new int[1 << 12];
    private long[] kg = new long[1 << 12];
    private int rows;
    private int bill;
    private int groups;

    private G5() {}

    @Override
    void cell(int column, char[] buffer, int offset, int length) {
        switch (column) {
            case 0 -> bill = bills.number(buffer, offset, length);
            case 1 -> kg[rows] = Decimals.hundredths(buffer, offset, length);
            default -> kind[rows] = kinds.number(buffer, offset, length);
        }
    }

    @Override
    void end() {
        next[rows] = NONE;
        if (bill == groups) {
            if (groups == first.length) {
                first = Arrays.copyOf(first, groups * 2);
                last = Arrays.copyOf(last, groups * 2);
            }
            first[groups++] = rows;
        } else {
            next[last[bill]] = rows;
        }
        last[bill] = rows++;
        if (rows == next.length) {
            next = Arrays.copyOf(next, rows * 2);
            kind = Arrays.copyOf(kind, rows * 2);
            kg = Arrays.copyOf(kg, rows * 2);
        }
    }

    private void write(int group, Sink out) throws IOException {
        out.put(BILL);
        out.json(bills.chars(), bills.start(group), bills.length(group));
        out.put(LINES);
        long fees = 0;
        for (int row = first[group]; row != NONE; row = next[row]) {
            if (row != first[group]) {
                out.put(',');
            }
            out.put(KIND);
            out.json(kinds.chars(), kinds.start(kind[row]), kinds.length(kind[row]));
            out.put(KG);
            out.decimal(kg[row], 2);
            out.put(FEE);
            out.decimal(kg[row] * 25, 4);
            out.put('}');
            fees += kg[row] * 25;
        }
        out.put(TOTAL);
        out.decimal(fees, 4);
        out.put('}');
        out.put('\n');
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        G5 work = new G5();
        work.read(folder.resolve("unsorted.csv"));
        try (Sink out = new Sink(file)) {
            for (int group = 0; group < work.groups; group++) {
                work.write(group, out);
            }
        }
    }
}
