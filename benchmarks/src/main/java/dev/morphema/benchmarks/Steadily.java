package dev.morphema.benchmarks;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;

/**
 * Runs a mapping and the program written by hand in one Java, in turn and again and again: what is
 * left when all methods are compiled. Compared are the least times of the later half, which a busy
 * machine disturbs least.
 */
final class Steadily {
    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();

    private final Path folder;
    private final int megabytes;
    private final int rounds;

    /**
     * @param folder for inputs and outputs
     * @param megabytes of each input
     * @param rounds how often each runs
     */
    Steadily(Path folder, int megabytes, int rounds) {
        this.folder = folder;
        this.megabytes = megabytes;
        this.rounds = rounds;
    }

    /** {@return a line that tells the cpu time of the thread that converts, in milliseconds} */
    String run(Workload workload) throws IOException {
        for (String file : workload.files()) {
            Generator.make(folder.resolve(file), (long) megabytes << 20);
        }
        long[] ours = new long[rounds];
        long[] theirs = new long[rounds];
        for (int i = 0; i < rounds; i++) {
            ours[i] = timed(workload, "morphema");
            theirs[i] = timed(workload, "hand");
        }
        double least = least(ours);
        double byHand = least(theirs);
        return String.format(
                Locale.ROOT,
                "%s morphema %.0f ms, hand %.0f ms, ratio %.2f; first round %.0f and %.0f ms",
                workload,
                least,
                byHand,
                least / byHand,
                ours[0] / 1e6,
                theirs[0] / 1e6);
    }

    private long timed(Workload workload, String contender) throws IOException {
        long start = THREADS.getCurrentThreadCpuTime();
        Contenders.of(workload, contender).run(folder, folder.resolve(workload + "." + contender + ".out"));
        return THREADS.getCurrentThreadCpuTime() - start;
    }

    private static double least(long[] times) {
        return Arrays.stream(times).skip(times.length / 2).min().orElseThrow() / 1e6;
    }
}
