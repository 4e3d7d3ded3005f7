package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/** Groups in any order: totals in arrays, by the number of the key. */
public final class G2 extends Rows {
    private final KeyTable keys = new KeyTable();
    private long[] counts = new long[1 << 11];
    private long[] sums = new long[1 << 11];
    private long[] most = new long[1 << 11];
    private int group;

    private G2() {}

    @Override
    void cell(int column, char[] buffer, int offset, int length) {
        if (column == 0) {
            group = keys.number(buffer, offset, length);
            if (group == counts.length) {
                counts = Arrays.copyOf(counts, group * 2);
                sums = Arrays.copyOf(sums, group * 2);
                most = Arrays.copyOf(most, group * 2);
            }
            if (counts[group] == 0) {
                most[group] = Long.MIN_VALUE;
            }
            counts[group]++;
        } else if (column == 1) {
            long kg = Decimals.hundredths(buffer, offset, length);
            sums[group] += kg;
            most[group] = Math.max(most[group], kg);
        }
    }

    @Override
    void end() {
        // all was done cell by cell
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        G2 work = new G2();
        work.read(folder.resolve("unsorted.csv"));
        try (Sink out = new Sink(file)) {
            out.put(Sink.bytes("bill,lines,kg,most\n"));
            for (int i = 0; i < work.keys.count(); i++) {
                out.csv(work.keys.chars(), work.keys.start(i), work.keys.length(i));
                out.put(',');
                out.decimal(work.counts[i], 0);
                out.put(',');
                out.decimal(work.sums[i], 2);
                out.put(',');
                out.decimal(work.most[i], 2);
                out.put('\n');
            }
        }
    }
}
