package dev.morphema.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Compares mappings with programs written by hand. */
public final class Main {
    private static final String USAGE = """
            compare FOLDER MEGABYTES PAIRS [WORKLOAD …]   all side by side; writes benchmarks.md and benchmarks.png there
            steadily FOLDER MEGABYTES ROUNDS WORKLOAD …   the mapping and the program by hand in one Java, in turn
            start SCRIPT RUNS                             the command on a tiny file, and a Java that does nothing, in turn
            serve CONTENDER PORT FOLDER                   the message M1 behind a server, until it is ended; for serve.sh
            once WORKLOAD CONTENDER FOLDER MEGABYTES OUT  one run, which prints the seconds of cpu and the peak of memory
            """;

    private Main() {}

    /** @param args a command and its arguments; without any, what there is is printed */
    public static void main(String[] args) throws IOException, InterruptedException {
        if (args.length >= 4 && args[0].equals("compare")) {
            compare(args);
        } else if (args.length >= 5 && args[0].equals("steadily")) {
            Path folder = Files.createDirectories(Path.of(args[1]));
            Steadily steadily = new Steadily(folder, Integer.parseInt(args[2]), Integer.parseInt(args[3]));
            for (int i = 4; i < args.length; i++) {
                System.out.println(steadily.run(Workload.valueOf(args[i])));
            }
        } else if (args.length == 3 && args[0].equals("start")) {
            new Startup(Path.of(args[1]), Integer.parseInt(args[2])).run();
        } else if (args.length == 4 && args[0].equals("serve")) {
            Served.run(args[1], Integer.parseInt(args[2]), Files.createDirectories(Path.of(args[3])));
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
        List<Comparison.Row> rows = new ArrayList<>();
        for (Workload workload : workloads) {
            rows.addAll(new Comparison(folder, megabytes, pairs).run(workload));
            // What is known stays known if a later workload fails, or somebody grows impatient.
            Files.writeString(folder.resolve("benchmarks.md"), Comparison.table(rows, megabytes, pairs));
            Plot.write(rows, folder.resolve("benchmarks.png"));
        }
        System.out.print(Comparison.table(rows, megabytes, pairs));
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
