package dev.morphema.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Runs one contender on one workload, once. */
public final class Main {
    private Main() {}

    /** @param args the workload, the contender, the folder of inputs, their megabytes and the file to be written */
    public static void main(String[] args) throws IOException {
        Workload workload = Workload.valueOf(args[0]);
        Path folder = Files.createDirectories(Path.of(args[2]));
        for (String file : workload.files()) {
            Generator.make(folder.resolve(file), Long.parseLong(args[3]) << 20);
        }
        if (!args[1].equals("generate")) {
            Contenders.of(workload, args[1]).run(folder, Path.of(args[4]));
        }
    }
}
