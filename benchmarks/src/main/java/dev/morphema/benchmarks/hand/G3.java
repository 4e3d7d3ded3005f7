package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** A group by in a group by: a table of days for each berth. */
public final class G3 extends Rows {
    /** The days of one berth, with how many visits each had. */
    private static final class Days {
        private final KeyTable keys = new KeyTable();
        private long[] counts = new long[64];
        private long all;

        void add(char[] buffer, int offset, int length) {
            int day = keys.number(buffer, offset, length);
            if (day == counts.length) {
                counts = Arrays.copyOf(counts, day * 2);
            }
            counts[day]++;
            all++;
        }
    }

    private final KeyTable berths = new KeyTable();
    private final List<Days> days = new ArrayList<>();
    private int berth;

    private G3() {}

    @Override
    void cell(int column, char[] buffer, int offset, int length) {
        if (column == 0) {
            berth = berths.number(buffer, offset, length);
            if (berth == days.size()) {
                days.add(new Days());
            }
        } else if (column == 1) {
            days.get(berth).add(buffer, offset, length);
        }
    }

    @Override
    void end() {
        // all was done cell by cell
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        G3 work = new G3();
        work.read(folder.resolve("visits.csv"));
        byte[] berth = Sink.bytes("{\"berth\":\"");
        byte[] visits = Sink.bytes("\",\"visits\":");
        byte[] list = Sink.bytes(",\"days\":[");
        byte[] day = Sink.bytes("{\"day\":\"");
        byte[] end = Sink.bytes("]}\n");
        try (Sink out = new Sink(file)) {
            for (int b = 0; b < work.berths.count(); b++) {
                Days days = work.days.get(b);
                out.put(berth);
                out.json(work.berths.chars(), work.berths.start(b), work.berths.length(b));
                out.put(visits);
                out.decimal(days.all, 0);
                out.put(list);
                for (int d = 0; d < days.keys.count(); d++) {
                    if (d > 0) {
                        out.put(',');
                    }
                    out.put(day);
                    out.json(days.keys.chars(), days.keys.start(d), days.keys.length(d));
                    out.put(visits);
                    out.decimal(days.counts[d], 0);
                    out.put('}');
                }
                out.put(end);
            }
        }
    }
}
