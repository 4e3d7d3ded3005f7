package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/** Neighbours grouped three deep: running totals, and the keys of the groups that are open. */
public final class G1 extends Rows {
    private static final byte[] DAY = Sink.bytes("{\"day\":\"");
    private static final byte[] SHIPS = Sink.bytes("\",\"ships\":[");
    private static final byte[] IMO = Sink.bytes("{\"imo\":\"");
    private static final byte[] BILLS = Sink.bytes("\",\"bills\":[");
    private static final byte[] BILL = Sink.bytes("{\"bill\":\"");
    private static final byte[] LINES = Sink.bytes("\",\"lines\":");
    private static final byte[] KG = Sink.bytes(",\"kg\":");
    private static final byte[] AFTER_LIST = Sink.bytes("],\"kg\":");
    private static final int DAYS = 0;
    private static final int SHIP = 1;
    private static final int ITEM = 2;

    private final Sink out;
    private final char[][] keys = new char[3][64];
    private final int[] lengths = {-1, -1, -1};
    private final long[] sums = new long[3];
    private final boolean[] changed = new boolean[3];
    private long lines;
    private long kg;

    private G1(Sink out) {
        this.out = out;
    }

    @Override
    void cell(int column, char[] buffer, int offset, int length) throws IOException {
        if (column == 3) {
            kg = Decimals.hundredths(buffer, offset, length);
            return;
        }
        boolean differs = column > 0 && changed[column - 1]
                || !Arrays.equals(keys[column], 0, Math.max(0, lengths[column]), buffer, offset, offset + length)
                || lengths[column] < 0;
        changed[column] = differs;
        if (differs) {
            close(column);
            System.arraycopy(buffer, offset, keys[column], 0, length);
            lengths[column] = length;
        }
    }

    @Override
    void end() throws IOException {
        open();
        lines++;
        for (int level = 0; level < 3; level++) {
            sums[level] += kg;
        }
    }

    private boolean first = true;
    private final boolean[] any = new boolean[3];

    private void open() throws IOException {
        if (changed[DAYS]) {
            out.put(DAY);
            out.json(keys[DAYS], 0, lengths[DAYS]);
            out.put(SHIPS);
        }
        if (changed[SHIP]) {
            if (any[SHIP]) {
                out.put(',');
            }
            any[SHIP] = true;
            out.put(IMO);
            out.json(keys[SHIP], 0, lengths[SHIP]);
            out.put(BILLS);
        }
        if (changed[ITEM]) {
            if (any[ITEM]) {
                out.put(',');
            }
            any[ITEM] = true;
            out.put(BILL);
            out.json(keys[ITEM], 0, lengths[ITEM]);
        }
        first = false;
    }

    /** Ends the groups from a level down. */
    private void close(int level) throws IOException {
        if (first) {
            return;
        }
        if (lengths[ITEM] >= 0) {
            out.put(LINES);
            out.decimal(lines, 0);
            out.put(KG);
            out.decimal(sums[ITEM], 2);
            out.put('}');
            lengths[ITEM] = -1;
            sums[ITEM] = 0;
            lines = 0;
        }
        if (level <= SHIP && lengths[SHIP] >= 0) {
            out.put(AFTER_LIST);
            out.decimal(sums[SHIP], 2);
            out.put('}');
            lengths[SHIP] = -1;
            sums[SHIP] = 0;
            any[ITEM] = false;
        }
        if (level == DAYS && lengths[DAYS] >= 0) {
            out.put(AFTER_LIST);
            out.decimal(sums[DAYS], 2);
            out.put('}');
            out.put('\n');
            lengths[DAYS] = -1;
            sums[DAYS] = 0;
            any[SHIP] = false;
        }
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (Sink out = new Sink(file)) {
            G1 work = new G1(out);
            work.read(folder.resolve("sorted.csv"));
            work.close(DAYS);
        }
    }
}
