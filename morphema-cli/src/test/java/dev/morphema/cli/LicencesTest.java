package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** The distribution has the licence of each library that it bundles. */
class LicencesTest {
    private static final Path LICENCES = Path.of("src/distribution/licenses");
    private static final Pattern VERSION = Pattern.compile("-\\d[^/]*\\.jar$");
    /** Beginnings of the names of what only tests use. */
    private static final List<String> ONLY_FOR_TESTS = List.of(
            "junit-", "assertj-", "byte-buddy", "opentest4j", "apiguardian-", "mockito-", "objenesis", "surefire");

    private static Stream<String> libraries() {
        return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .map(path -> Path.of(path).getFileName().toString())
                .filter(name -> VERSION.matcher(name).find())
                .map(name -> VERSION.matcher(name).replaceFirst(""))
                .filter(name -> !name.startsWith("morphema"))
                .filter(name -> ONLY_FOR_TESTS.stream().noneMatch(name::startsWith))
                .filter(name -> !name.equals("picocli-codegen"));
    }

    @Test
    @DisplayName("each library has a licence, and each licence a library")
    void licences() throws IOException {
        try (Stream<Path> files = Files.list(LICENCES)) {
            List<String> licensed = files.map(file -> file.getFileName().toString())
                    .map(name -> name.substring(0, name.length() - ".txt".length()))
                    .filter(name -> !name.equals("apache-2.0"))
                    .toList();
            assertThat(libraries()).containsExactlyInAnyOrderElementsOf(licensed);
        }
    }
}
