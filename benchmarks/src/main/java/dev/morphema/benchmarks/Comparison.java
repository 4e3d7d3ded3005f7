package dev.morphema.benchmarks;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/**
 * Runs contenders side by side, each in a process of its own, in turn: one pair after the other, so
 * that a machine that is now faster and now slower is so for both. Medians are compared.
 */
final class Comparison {
    static final List<String> CONTENDERS = List.of("morphema", "hand", "plain", Contenders.LIMIT);

    private final Path folder;
    private final int megabytes;
    private final int pairs;

    /**
     * @param folder for inputs and outputs
     * @param megabytes of each input
     * @param pairs how many runs of each contender count; one more comes first and does not
     */
    Comparison(Path folder, int megabytes, int pairs) {
        this.folder = folder;
        this.megabytes = megabytes;
        this.pairs = pairs;
    }

    /** Medians of all runs of one contender on one workload. */
    record Row(Workload workload, String contender, Figures medians) {}

    /** {@return the medians of all contenders} */
    List<Row> run(Workload workload) throws IOException, InterruptedException {
        Map<String, List<Figures>> figures = new LinkedHashMap<>();
        List<String> contenders = CONTENDERS.stream()
                .filter(name -> Contenders.has(workload, name))
                .toList();
        contenders.forEach(name -> figures.put(name, new ArrayList<>()));
        for (String contender : contenders) {
            archive(workload, contender);
        }
        for (int pair = 0; pair <= pairs; pair++) {
            for (String contender : contenders) {
                Figures run = Figures.of(
                        command(workload, contender, "-XX:SharedArchiveFile=" + archived(workload, contender)));
                if (pair > 0) {
                    figures.get(contender).add(run);
                }
            }
            if (pair == 0) {
                requireEqual(workload, contenders);
            }
        }
        List<Row> rows = new ArrayList<>();
        figures.forEach((contender, runs) -> rows.add(new Row(
                workload,
                contender,
                new Figures(median(runs, Figures::cpu), median(runs, Figures::wall), median(runs, Figures::peak)))));
        System.err.println(workload + " done");
        return rows;
    }

    /**
     * Keeps the classes of a contender in an archive, as the start script does. Java could also
     * make one at the end of a run, but in that one methods that wait for the compiler then are
     * never compiled, and later runs take several times as long.
     */
    private void archive(Workload workload, String contender) throws IOException, InterruptedException {
        Path classes = folder.resolve(workload + "." + contender + ".classes");
        Figures.of(command(workload, contender, "-XX:DumpLoadedClassList=" + classes));
        List<String> dump = List.of(
                java(),
                "-Xshare:dump",
                "-XX:SharedClassListFile=" + classes,
                "-XX:SharedArchiveFile=" + archived(workload, contender),
                "-Xlog:disable",
                "-XX:+UseSerialGC",
                "-cp",
                classPath());
        int code = new ProcessBuilder(dump)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
        if (code != 0) {
            throw new IOException("this has failed: " + String.join(" ", dump));
        }
    }

    private Path archived(Workload workload, String contender) {
        return folder.resolve(workload + "." + contender + ".jsa");
    }

    private static String java() {
        return ProcessHandle.current().info().command().orElse("java");
    }

    private static String classPath() {
        String classPath = System.getProperty("java.class.path");
        if (!Arrays.stream(classPath.split(File.pathSeparator)).allMatch(file -> file.endsWith(".jar"))) {
            throw new IllegalStateException(
                    "an archive of classes is made of jars only; there is a folder in the class path");
        }
        return classPath;
    }

    private List<String> command(Workload workload, String contender, String ofClasses) {
        return List.of(
                java(),
                ofClasses,
                // as the start script has it, for all
                "-Xlog:disable",
                "-XX:+UseSerialGC",
                "-XX:FreqInlineSize=64",
                "-XX:-UsePerfData",
                "-Xmx" + workload.heap() + "m",
                "-cp",
                classPath(),
                Main.class.getName(),
                "once",
                workload.name(),
                contender,
                folder.toString(),
                Integer.toString(megabytes),
                out(workload, contender).toString());
    }

    private Path out(Workload workload, String contender) {
        return folder.resolve(workload + "." + contender + ".out");
    }

    /** What gives another result is no rival. */
    private void requireEqual(Workload workload, List<String> contenders) throws IOException {
        for (String contender : contenders) {
            if (contender.equals(Contenders.LIMIT)) {
                continue;
            }
            long differs = Files.mismatch(out(workload, contenders.get(0)), out(workload, contender));
            if (differs >= 0) {
                throw new IOException(workload + ": the output of " + contender + " differs from byte " + differs);
            }
        }
    }

    private static double median(List<Figures> runs, ToDoubleFunction<Figures> figure) {
        double[] sorted = runs.stream().mapToDouble(figure).sorted().toArray();
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }

    /** {@return the medians as a Markdown table; ratios are those of the mapping to the others} */
    static String table(List<Row> rows, int megabytes, int pairs) {
        StringBuilder out = new StringBuilder();
        out.append("Inputs of ")
                .append(megabytes)
                .append(" MB, medians of ")
                .append(pairs)
                .append(" runs each, in turn.\n\n");
        out.append("| workload | contender | cpu s | wall s | peak MB | morphema to it, cpu |\n");
        out.append("| --- | --- | ---: | ---: | ---: | ---: |\n");
        for (Row row : rows) {
            Figures ours = rows.stream()
                    .filter(r -> r.workload() == row.workload() && r.contender().equals("morphema"))
                    .findFirst()
                    .orElseThrow()
                    .medians();
            Figures f = row.medians();
            out.append(String.format(
                    Locale.ROOT,
                    "| %s %s | %s | %.2f | %.2f | %.0f | %.2f |%n",
                    row.workload(),
                    row.workload().title(),
                    row.contender(),
                    f.cpu(),
                    f.wall(),
                    f.peak(),
                    ours.cpu() / f.cpu()));
        }
        return out.toString().replace(System.lineSeparator(), "\n");
    }
}
