package dev.morphema.samples;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A sample case: a folder with {@code in/}, whose files are named after the sources of the mapping,
 * and {@code out/}, whose files are named after its targets. It lies in a folder that is named
 * after the mapping beside it: {@code arrival.morphema} has its cases in {@code arrival.cases/}. A
 * source of many files has a folder of its name, and so has a target of many documents. Immutable.
 *
 * <p>A file {@code case.properties} may set parameters ({@code param.NAME}), the present ({@code
 * now}, ISO 8601) and the {@code seed} of random codes.
 *
 * @param mapping the file with the mapping
 * @param folder the folder of the case
 */
public record SampleCase(Path mapping, Path folder) {
    private static final String MAPPING = ".morphema";
    private static final String CASES = ".cases";

    /**
     * {@return all cases at or below a place, in the order of their names}
     *
     * @param place a mapping, a folder of cases, a case, or a folder somewhere above
     * @throws ProblemException if there is no such place, or it is a mapping without cases
     */
    public static List<SampleCase> find(Path place) {
        if (!Files.exists(place)) {
            throw new ProblemException(Problem.error(Code.FILE_NOT_FOUND, "There is no " + place + "."));
        }
        try {
            if (!Files.isDirectory(place)) {
                return ofMapping(place);
            }
            Path absolute = place.toAbsolutePath().normalize();
            if (isCases(absolute.getParent())) {
                return List.of(new SampleCase(
                        mappingOf(place.toAbsolutePath().normalize().getParent()), place));
            }
            return isCases(absolute) ? inFolder(mappingOf(place), place) : below(place);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** {@return the name of the case for people: the folder of cases and its own} */
    public String name() {
        return folder.getParent() == null
                ? folder.toString()
                : folder.getParent().getFileName() + "/" + folder.getFileName();
    }

    private static List<SampleCase> ofMapping(Path mapping) throws IOException {
        String name = mapping.getFileName().toString();
        Path cases = mapping.resolveSibling(
                (name.endsWith(MAPPING) ? name.substring(0, name.length() - MAPPING.length()) : name) + CASES);
        if (!Files.isDirectory(cases)) {
            throw new ProblemException(Problem.error(Code.FILE_NOT_FOUND, "The mapping " + mapping + " has no cases.")
                    .withHelp("a case is a folder in " + cases + ", with in/ and out/ in it"));
        }
        return inFolder(mapping, cases);
    }

    private static boolean isCases(@Nullable Path folder) {
        return folder != null
                && folder.getFileName() != null
                && folder.getFileName().toString().endsWith(CASES);
    }

    private static Path mappingOf(Path cases) {
        Path named = cases.toAbsolutePath().normalize();
        String name = named.getFileName().toString();
        String base = name.substring(0, name.length() - CASES.length());
        Path parent = cases.getParent();
        return cases.getFileName() != null && cases.getFileName().toString().equals(name)
                ? (parent == null ? Path.of(base + MAPPING) : parent.resolve(base + MAPPING))
                : named.resolveSibling(base + MAPPING);
    }

    private static List<SampleCase> inFolder(Path mapping, Path cases) throws IOException {
        try (Stream<Path> folders = Files.list(cases)) {
            return folders.filter(Files::isDirectory)
                    .sorted()
                    .map(folder -> new SampleCase(mapping, folder))
                    .toList();
        }
    }

    private static List<SampleCase> below(Path folder) throws IOException {
        List<SampleCase> found = new ArrayList<>();
        try (Stream<Path> places = Files.walk(folder)) {
            for (Path cases : places.filter(p -> Files.isDirectory(p) && isCases(p))
                    .sorted()
                    .toList()) {
                found.addAll(inFolder(mappingOf(cases), cases));
            }
        }
        return found;
    }
}
