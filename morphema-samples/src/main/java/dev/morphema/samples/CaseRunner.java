package dev.morphema.samples;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.RunOptions;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Runs sample cases. A mapping is loaded once for all its cases. Not thread-safe. */
public final class CaseRunner {
    /** The present in a case that does not set another, so that a case gives the same every day. */
    private static final Instant PRESENT = Instant.parse("2026-01-01T00:00:00Z");

    private final Morphema morphema;
    private final Map<Path, Checked> mappings = new HashMap<>();

    /** @param morphema loads the mappings */
    public CaseRunner(Morphema morphema) {
        this.morphema = morphema;
    }

    /**
     * {@return what becomes of a case; never throws for what is wrong with the case or its mapping}
     */
    public CaseResult run(SampleCase sampleCase) {
        try {
            Checked checked = mappings.computeIfAbsent(sampleCase.mapping(), morphema::check);
            return new CaseResult(sampleCase, compared(sampleCase, checked.orThrow()), List.of());
        } catch (ProblemException e) {
            return new CaseResult(sampleCase, Map.of(), e.problems());
        } catch (IOException e) {
            return new CaseResult(
                    sampleCase,
                    Map.of(),
                    List.of(Problem.error(
                            Code.NOT_READABLE, "A file of the case cannot be read: " + e.getMessage() + ".")));
        }
    }

    private static Map<String, List<Difference>> compared(SampleCase sampleCase, Mapping mapping) throws IOException {
        Inputs inputs = Inputs.NONE;
        for (Map.Entry<String, Path> file :
                places(sampleCase.folder().resolve("in")).entrySet()) {
            Path place = file.getValue();
            inputs = Files.isDirectory(place)
                    ? inputs.andFiles(
                            file.getKey(), List.copyOf(filesBelow(place).values()))
                    : inputs.andFile(file.getKey(), place);
        }
        Map<String, Path> expected = places(sampleCase.folder().resolve("out"));
        if (expected.isEmpty()) {
            throw new ProblemException(
                    Problem.error(Code.MISSING_INPUT, "The case " + sampleCase.name() + " expects nothing.")
                            .withHelp("put what is expected into out/, in files named after the targets"));
        }
        Map<String, ByteArrayOutputStream> single = new LinkedHashMap<>();
        Map<String, Map<String, byte[]>> many = new LinkedHashMap<>();
        Outputs outputs = Outputs.NONE;
        for (Map.Entry<String, Path> place : expected.entrySet()) {
            String target = place.getKey();
            if (Files.isDirectory(place.getValue())) {
                Map<String, byte[]> documents = new TreeMap<>();
                many.put(target, documents);
                outputs = outputs.andDocuments(target, documents::put);
            } else {
                ByteArrayOutputStream bytes = new ByteArrayOutputStream();
                single.put(target, bytes);
                outputs = outputs.andStream(target, bytes);
            }
        }
        mapping.run(inputs, outputs, options(sampleCase.folder().resolve("case.properties")));
        Map<String, List<Difference>> differences = new LinkedHashMap<>();
        for (Map.Entry<String, Path> place : expected.entrySet()) {
            String target = place.getKey();
            List<Difference> found = many.containsKey(target)
                    ? differences(mapping, target, filesBelow(place.getValue()), many.get(target))
                    : Documents.differences(
                            mapping,
                            target,
                            place.getValue(),
                            single.get(target).toByteArray());
            if (!found.isEmpty()) {
                differences.put(target, found);
            }
        }
        return differences;
    }

    /**
     * Compares folders of documents: by their names, and those of the same name by what they hold.
     */
    private static List<Difference> differences(
            Mapping mapping, String target, Map<String, Path> expected, Map<String, byte[]> actual) throws IOException {
        List<Difference> found = new ArrayList<>();
        Set<String> names = new TreeSet<>(expected.keySet());
        names.addAll(actual.keySet());
        for (String name : names) {
            Path wanted = expected.get(name);
            byte[] written = actual.get(name);
            if (wanted == null || written == null) {
                found.add(new Difference(
                        name,
                        wanted == null ? Difference.NOTHING : "a document",
                        written == null ? Difference.NOTHING : "a document"));
            } else {
                for (Difference inside : Documents.differences(mapping, target, wanted, written)) {
                    found.add(new Difference(name + " " + inside.path(), inside.expected(), inside.actual()));
                }
            }
        }
        return found;
    }

    /** Files and folders by their names without extension. */
    private static Map<String, Path> places(Path folder) throws IOException {
        Map<String, Path> byName = new TreeMap<>();
        if (!Files.isDirectory(folder)) {
            return byName;
        }
        try (Stream<Path> places = Files.list(folder)) {
            for (Path place : places.sorted().toList()) {
                String name = place.getFileName().toString();
                int point = Files.isDirectory(place) ? -1 : name.indexOf('.', 1);
                byName.put(point < 0 ? name : name.substring(0, point), place);
            }
        }
        return byName;
    }

    /** All files in a folder and folders below it, by their paths from there, sorted. */
    private static Map<String, Path> filesBelow(Path folder) throws IOException {
        Map<String, Path> byPath = new TreeMap<>();
        try (Stream<Path> files = Files.walk(folder)) {
            files.filter(Files::isRegularFile)
                    .forEach(file ->
                            byPath.put(folder.relativize(file).toString().replace('\\', '/'), file));
        }
        return byPath;
    }

    private static RunOptions options(Path file) throws IOException {
        RunOptions options =
                RunOptions.DEFAULT.clock(Clock.fixed(PRESENT, ZoneOffset.UTC)).seed(1);
        if (!Files.exists(file)) {
            return options;
        }
        Properties properties = new Properties();
        try (Reader reader = Files.newBufferedReader(file)) {
            properties.load(reader);
        }
        for (String key : properties.stringPropertyNames()) {
            options = option(options, key, properties.getProperty(key), file);
        }
        return options;
    }

    private static RunOptions option(RunOptions options, String key, String value, Path file) {
        try {
            if (key.startsWith("param.")) {
                return options.param(key.substring("param.".length()), value);
            }
            if (key.equals("now")) {
                return options.clock(Clock.fixed(Instant.parse(value), ZoneOffset.UTC));
            }
            if (key.equals("seed")) {
                return options.seed(Long.parseLong(value));
            }
        } catch (DateTimeException | NumberFormatException e) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "The value of " + key + " in " + file + " cannot be read.")
                            .withValue(value));
        }
        throw new ProblemException(Problem.error(Code.USAGE, "There is no setting " + key + " in " + file + ".")
                .withHelp("there is now, seed and param.NAME"));
    }
}
