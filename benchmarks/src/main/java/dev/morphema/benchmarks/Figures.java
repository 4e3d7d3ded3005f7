package dev.morphema.benchmarks;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * What one process has used.
 *
 * @param cpu seconds of all its threads
 * @param wall seconds from its start to its end
 * @param peak memory in megabytes, as the operating system counts it; 0 where that is not known
 */
record Figures(double cpu, double wall, double peak) {
    private static final double NANOS = 1e9;
    private static final double KIBI = 1024;

    /** Prints the figures of this process, for the one that has started it. */
    static void print() throws IOException {
        var system = (com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        System.out.println(system.getProcessCpuTime() / NANOS + " " + peakKibibytes() / KIBI);
    }

    private static long peakKibibytes() throws IOException {
        Path status = Path.of("/proc/self/status");
        if (!Files.exists(status)) {
            return 0;
        }
        return Files.readAllLines(status).stream()
                .filter(line -> line.startsWith("VmHWM:"))
                .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")))
                .findFirst()
                .orElse(0);
    }

    /**
     * {@return the figures of a process that is run to its end}
     *
     * @param command of which the last line of output is what {@link #print} prints
     * @throws IOException if it fails
     */
    static Figures of(List<String> command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        List<String> lines =
                new String(process.getInputStream().readAllBytes()).lines().toList();
        int code = process.waitFor();
        double wall = (System.nanoTime() - start) / NANOS;
        if (code != 0 || lines.isEmpty()) {
            throw new IOException("this has failed: " + String.join(" ", command));
        }
        String[] words = lines.get(lines.size() - 1).split(" ");
        return new Figures(Double.parseDouble(words[0]), wall, Double.parseDouble(words[1]));
    }
}
