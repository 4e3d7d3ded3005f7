package dev.morphema.draft;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Kind;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** Inputs with what is to be made of them, by which drafts are measured. */
final class Pairs {
    private static final Path CASES = Path.of("../docs/cases");
    private static final Path OWN = Path.of("src/test/resources/pairs");

    /**
     * Inputs with an output.
     *
     * @param name of the pair
     * @param inputs samples of the sources
     * @param output what is to be made of them
     */
    record Pair(String name, List<Path> inputs, Path output) {
        @Override
        public String toString() {
            return name;
        }
    }

    /**
     * How good a draft is.
     *
     * @param right how many fields of the output have all values that are expected, in order
     * @param fields how many fields the output has
     */
    record Score(int right, int fields) {}

    private Pairs() {}

    /** {@return the pairs of this folder, and those of the documented cases with one document} */
    static List<Pair> all() throws IOException {
        List<Pair> pairs = new ArrayList<>();
        for (Path folder : folders(OWN)) {
            add(folder.getFileName().toString(), folder, pairs);
        }
        pairs.add(new Pair(
                "demo: notice",
                List.of(demo("samples/manifest.csv"), demo("tables/berths.csv"), demo("tables/commodities.csv")),
                demo("expected/notice.xml")));
        pairs.add(new Pair(
                "demo: terminal",
                List.of(demo("samples/manifest.csv"), demo("tables/commodities.csv")),
                demo("expected/terminal.json")));
        for (Path cases : folders(CASES)) {
            if (!cases.toString().endsWith(".cases")) {
                continue;
            }
            Path first = folders(cases).get(0);
            add("case " + cases.getFileName().toString().replace(".cases", ""), first, pairs);
        }
        return pairs;
    }

    private static Path demo(String file) {
        return Path.of("../demo").resolve(file);
    }

    private static void add(String name, Path folder, List<Pair> pairs) throws IOException {
        if (!Files.isDirectory(folder.resolve("in"))
                || folders(folder.resolve("in")).size() > 0) {
            return;
        }
        for (Path output : files(folder.resolve("out"))) {
            boolean only = files(folder.resolve("out")).size() == 1;
            pairs.add(new Pair(only ? name : name + ": " + output.getFileName(), files(folder.resolve("in")), output));
        }
    }

    private static List<Path> folders(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(Files::isDirectory).sorted().toList();
        }
    }

    private static List<Path> files(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(Files::isRegularFile).sorted().toList();
        }
    }

    /** {@return how good a draft is for a pair} */
    static Score score(Pair pair, String draft, Path scratch) throws IOException {
        Map<String, List<String>> expected = leaves(pair.output());
        Map<String, List<String>> actual = new LinkedHashMap<>();
        try {
            Mapping mapping = Morphema.standard().load("draft", draft, scratch);
            Inputs inputs = Inputs.NONE;
            for (int i = 0; i < pair.inputs().size(); i++) {
                inputs = inputs.andFile(mapping.sources().get(i), pair.inputs().get(i));
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            mapping.run(inputs, Outputs.stream(mapping.targets().get(0), out));
            Path written = scratch.resolve(pair.output().getFileName());
            Files.write(written, out.toByteArray());
            actual = leaves(written);
        } catch (ProblemException e) {
            // What does not run has nothing right.
        }
        int right = 0;
        for (Map.Entry<String, List<String>> leaf : expected.entrySet()) {
            right += leaf.getValue().equals(actual.get(leaf.getKey())) ? 1 : 0;
        }
        return new Score(right, expected.size());
    }

    /** {@return the values of each field of a document, by its path, in order} */
    private static Map<String, List<String>> leaves(Path file) {
        Map<String, List<String>> leaves = new LinkedHashMap<>();
        Side.read(file.toString()).items().forEach(item -> collect("", item, leaves));
        return leaves;
    }

    private static void collect(String path, Item item, Map<String, List<String>> leaves) {
        if (item.cell() != null && !(item.isRecord() && item.cell().text().isEmpty())) {
            Cell cell = item.cell();
            BigDecimal number = cell.kind() == Kind.NUMBER ? Cell.number(cell) : null;
            leaves.computeIfAbsent(path, p -> new ArrayList<>())
                    .add(
                            number == null
                                    ? cell.text()
                                    : number.stripTrailingZeros().toPlainString());
        }
        item.fields().forEach((name, held) -> held.forEach(each -> collect(path + "/" + name, each, leaves)));
    }
}
