package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Every example in the documentation is true. */
class DocumentationTest {
    private static final Pattern LINK = Pattern.compile("\\]\\((?!https?:)([^)#\\s]+)");

    @TempDir
    private Path folder;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "README.md",
                "docs/language.md",
                "docs/recipes.md",
                "docs/xml.md",
                "docs/performance.md",
                "docs/databases.md",
                "docs/formats.md",
                "docs/schemas.md",
                "docs/drafts.md"
            })
    @DisplayName("every example prints what the page says")
    void examplesAreTrue(String page) throws IOException {
        assertThat(new Page(folder).replay(Path.of("..", page))).isNotEmpty();
    }

    @Test
    @DisplayName("every documented case passes")
    void casesPass() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int code = Main.run(new String[] {"test", "../docs/cases"}, new ByteArrayInputStream(new byte[0]), out, out);
        assertThat(code).as(out.toString(StandardCharsets.UTF_8)).isZero();
        assertThat(out.toString(StandardCharsets.UTF_8)).contains("cases:").contains(" 0 failed");
    }

    @Test
    @DisplayName("every link in the documentation leads to a file")
    void links() throws IOException {
        List<Path> pages = new ArrayList<>(List.of(Path.of("../README.md")));
        try (DirectoryStream<Path> docs = Files.newDirectoryStream(Path.of("../docs"), "*.md")) {
            docs.forEach(pages::add);
        }
        try (DirectoryStream<Path> problems = Files.newDirectoryStream(Path.of("../docs/problems"), "*.md")) {
            problems.forEach(pages::add);
        }
        for (Path page : pages) {
            Matcher links = LINK.matcher(Files.readString(page));
            while (links.find()) {
                assertThat(page.resolveSibling(links.group(1)))
                        .as("a link in %s", page)
                        .exists();
            }
        }
        assertThat(pages).hasSizeGreaterThan(5);
    }
}
