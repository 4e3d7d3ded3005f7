package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** The page of faults names tests that are there. */
class FaultsPageTest {
    private static final Pattern ROW = Pattern.compile("\\| `(\\w+)#(\\w+)` \\|");
    private static final int LEAST_ROWS = 60;

    @Test
    @DisplayName("each row of the page of faults names a test that is there")
    void tests() throws IOException {
        List<Path> sources;
        try (Stream<Path> all = Files.walk(Path.of(".."))) {
            sources = all.filter(file -> file.toString().contains("src/test/java"))
                    .toList();
        }
        Matcher row = ROW.matcher(Files.readString(Path.of("../docs/faults.md")));
        int rows = 0;
        while (row.find()) {
            rows++;
            String file = row.group(1) + ".java";
            String method = row.group(2);
            assertThat(sources.stream().filter(source -> source.endsWith(file)))
                    .as(row.group())
                    .anySatisfy(source -> assertThat(Files.readString(source)).contains("void " + method + "("));
        }
        assertThat(rows).isGreaterThanOrEqualTo(LEAST_ROWS);
    }
}
