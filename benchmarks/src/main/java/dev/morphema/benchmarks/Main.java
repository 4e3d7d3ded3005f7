package dev.morphema.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;

/** Compares mappings with programs written by hand. */
public final class Main {
    private static final String USAGE = """
            compare FOLDER MEGABYTES PAIRS [WORKLOAD …]   all side by side; writes benchmarks.md and benchmarks.png there
            once WORKLOAD CONTENDER FOLDER MEGABYTES OUT  one run, which prints the seconds of cpu and the peak of memory
            """;

    private Main() {}

    /** @param args a command and its arguments; without any, what there is is printed */
    public static void main(String[] args) throws IOException, InterruptedException {
        if (args.length >= 4 && args[0].equals("compare")) {
            compare(args);
        } else if (args.length == 6 && args[0].equals("once")) {
            once(args);
        } else {
            System.out.print(USAGE);
        }
    }

    private static void compare(String[] args) throws IOException, InterruptedException {
        Path folder = Files.createDirectories(Path.of(args[1]));
        int megabytes = Integer.parseInt(args[2]);
        int pairs = Integer.parseInt(args[3]);
        List<Workload> workloads = args.length == 4
                ? List.of(Workload.values())
                : Arrays.stream(args).skip(4).map(Workload::valueOf).toList();
        for (Workload workload : workloads) {
            for (String file : workload.files()) {
                Generator.make(folder.resolve(file), (long) megabytes << 20);
            }
        }
        List<Comparison.Row> rows = new Comparison(folder, megabytes, pairs).run(workloads);
        String table = Comparison.table(rows, megabytes, pairs);
        Files.writeString(folder.resolve("benchmarks.md"), table);
        Plot.write(rows, folder.resolve("benchmarks.png"));
        System.out.print(table);
    }

    private static void once(String[] args) throws IOException {
        Workload workload = Workload.valueOf(args[1]);
        Path folder = Files.createDirectories(Path.of(args[3]));
        for (String file : workload.files()) {
            Generator.make(folder.resolve(file), Long.parseLong(args[4]) << 20);
        }
        Contenders.of(workload, args[2]).run(folder, Path.of(args[5]));
        Figures.print();
    }
}
