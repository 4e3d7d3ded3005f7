package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Area;
import dev.morphema.problem.Code;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Each problem of a mapping has a page, whose wrong example has it, and whose right one has not.
 */
class ProblemPagesTest {
    private static final Path PAGES = Path.of("../docs/problems");

    @TempDir
    private Path folder;

    private static Stream<Code> codes() {
        return Arrays.stream(Code.values()).filter(code -> code.area() == Area.MAPPING);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("the page of a problem is true")
    @MethodSource("codes")
    void pages(Code code) throws IOException {
        List<String> printed = new Page(folder).replay(PAGES.resolve(code.printed() + ".md"));
        if (code != Code.TOO_DEEP) {
            assertThat(printed).hasSize(2);
            assertThat(printed.get(0)).contains("[" + code.printed() + "]");
            assertThat(printed.get(1))
                    .doesNotContain("[" + code.printed() + "]")
                    .doesNotContain("error:");
        }
    }

    @Test
    @DisplayName("the list of problems has all of them")
    void list() throws IOException {
        String list = Files.readString(PAGES.resolve("README.md"));
        codes().forEach(code -> assertThat(list).contains("[" + code.printed() + "](" + code.printed() + ".md)"));
    }
}
