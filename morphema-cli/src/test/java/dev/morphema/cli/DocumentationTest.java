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

/**
 * Every example in the documentation is true. A fenced block with a file name after its language is
 * that file; a block {@code console} holds commands, each with what it prints.
 */
class DocumentationTest {
    private static final Pattern BLOCK =
            Pattern.compile("^```(\\S+)(?: (\\S+))?\\n(.*?)^```", Pattern.MULTILINE | Pattern.DOTALL);

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
                "docs/schemas.md"
            })
    @DisplayName("every example prints what the page says")
    void examplesAreTrue(String page) throws IOException {
        Matcher blocks = BLOCK.matcher(Files.readString(Path.of("..", page)));
        int commands = 0;
        while (blocks.find()) {
            String text = blocks.group(3);
            if (blocks.group(2) != null) {
                Path file = folder.resolve(blocks.group(2));
                Files.createDirectories(file.getParent());
                Files.writeString(file, text);
            } else if (blocks.group(1).equals("console")) {
                assertThat(replayed(text)).isEqualTo(text);
                commands++;
            }
        }
        assertThat(commands).isPositive();
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

    private String replayed(String console) {
        StringBuilder out = new StringBuilder();
        for (String line : console.lines().toList()) {
            if (line.startsWith("$ morphema ")) {
                out.append(line).append('\n').append(printed(line.substring("$ morphema ".length())));
            }
        }
        return out.toString();
    }

    private String printed(String words) {
        List<String> located = new ArrayList<>();
        for (String word : words.split(" ")) {
            int at = word.indexOf('=') + 1;
            boolean file = (word.contains(".") || word.endsWith("/")) && !word.startsWith("-");
            String unquoted = word.substring(at).replace("'", "");
            located.add(file ? word.substring(0, at) + folder + "/" + unquoted : word);
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        Main.run(located.toArray(String[]::new), new ByteArrayInputStream(new byte[0]), out, err);
        String text = out.toString(StandardCharsets.UTF_8) + err.toString(StandardCharsets.UTF_8);
        return text.replace(folder + "/", "")
                .replace(folder + "\\", "")
                .replaceAll("took {4}[0-9.]+ s", "took    0.05 s");
    }
}
