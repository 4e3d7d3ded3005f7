package dev.morphema.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** Measures how long the command takes on a tiny file, against a Java that does nothing. */
final class Startup {
    private static final String MAPPING = """
            morphema 1
            source rows: csv
            target out: json {
              ships for row in rows { name = row.ship  kg = number(row.kg) }
            }
            """;
    private static final String INPUT = "ship,kg\nNordlys,10.50\nSula,5\n";

    private final Path script;
    private final int runs;

    /**
     * @param script starts the command
     * @param runs how many of each count; one more comes first and does not
     */
    Startup(Path script, int runs) {
        this.script = script;
        this.runs = runs;
    }

    /** A Java that does nothing. */
    static final class Bare {
        private Bare() {}

        /** @param args none */
        public static void main(String[] args) {
            // that it starts and ends is all
        }
    }

    /** Prints the medians, and the ratio of both. */
    void run() throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("start");
        Path mapping = Files.writeString(folder.resolve("ships.morphema"), MAPPING);
        Path input = Files.writeString(folder.resolve("ships.csv"), INPUT);
        List<String> command = List.of(
                script.toString(),
                "run",
                mapping.toString(),
                "--in",
                input.toString(),
                "--out",
                folder.resolve("ships.json").toString(),
                "--quiet");
        List<String> bare = List.of(
                ProcessHandle.current().info().command().orElse("java"),
                "-XX:+UseSerialGC",
                "-cp",
                System.getProperty("java.class.path"),
                Bare.class.getName());
        double[] ours = new double[runs];
        double[] nothing = new double[runs];
        for (int i = -1; i < runs; i++) {
            double first = seconds(command);
            double second = seconds(bare);
            if (i >= 0) {
                ours[i] = first;
                nothing[i] = second;
            }
        }
        Arrays.sort(ours);
        Arrays.sort(nothing);
        double a = ours[runs / 2];
        double b = nothing[runs / 2];
        System.out.printf(Locale.ROOT, "command %.3f s, bare Java %.3f s, ratio %.2f%n", a, b, a / b);
    }

    private static double seconds(List<String> command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        int code = new ProcessBuilder(command).inheritIO().start().waitFor();
        if (code != 0) {
            throw new IOException("this has failed: " + String.join(" ", command));
        }
        return (System.nanoTime() - start) / 1e9;
    }
}
