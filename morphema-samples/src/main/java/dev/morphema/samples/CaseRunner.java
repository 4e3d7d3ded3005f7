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
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.xml.stream.XMLStreamException;

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

    /** {@return what becomes of a case; never throws for what is wrong with the case or its mapping} */
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
                files(sampleCase.folder().resolve("in")).entrySet()) {
            inputs = inputs.andFile(file.getKey(), file.getValue());
        }
        Map<String, Path> expected = files(sampleCase.folder().resolve("out"));
        if (expected.isEmpty()) {
            throw new ProblemException(
                    Problem.error(Code.MISSING_INPUT, "The case " + sampleCase.name() + " expects nothing.")
                            .withHelp("put what is expected into out/, in files named after the targets"));
        }
        Map<String, ByteArrayOutputStream> actual = new LinkedHashMap<>();
        Outputs outputs = Outputs.NONE;
        for (String target : expected.keySet()) {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            actual.put(target, bytes);
            outputs = outputs.andStream(target, bytes);
        }
        mapping.run(inputs, outputs, options(sampleCase.folder().resolve("case.properties")));
        Map<String, List<Difference>> differences = new LinkedHashMap<>();
        for (Map.Entry<String, Path> file : expected.entrySet()) {
            byte[] written = actual.get(file.getKey()).toByteArray();
            List<Difference> found = differences(mapping, file.getKey(), file.getValue(), written);
            if (!found.isEmpty()) {
                differences.put(file.getKey(), found);
            }
        }
        return differences;
    }

    private static List<Difference> differences(Mapping mapping, String target, Path expected, byte[] actual)
            throws IOException {
        byte[] wanted = Files.readAllBytes(expected);
        if (!mapping.formatOf(target).equals("xml")) {
            return ValueDifferences.between(
                    mapping.readBack(target, expected.toString(), wanted), mapping.readBack(target, target, actual));
        }
        try {
            return XmlDifferences.between(XmlTree.parse(wanted), XmlTree.parse(actual));
        } catch (XMLStreamException e) {
            throw new ProblemException(
                    Problem.error(Code.BAD_XML, "The expected output " + expected + " is not well-formed."), e);
        }
    }

    /** Files by their names without extension. */
    private static Map<String, Path> files(Path folder) throws IOException {
        Map<String, Path> byName = new TreeMap<>();
        if (!Files.isDirectory(folder)) {
            return byName;
        }
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(Files::isRegularFile).sorted().toList()) {
                String name = file.getFileName().toString();
                int point = name.indexOf('.', 1);
                byName.put(point < 0 ? name : name.substring(0, point), file);
            }
        }
        return byName;
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
