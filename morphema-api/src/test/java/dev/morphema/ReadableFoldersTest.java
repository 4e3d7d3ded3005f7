package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * A mapping from elsewhere reads nothing but what is in its own folder, and cannot keep its checker
 * busy.
 */
@DisabledOnOs(OS.WINDOWS)
class ReadableFoldersTest {
    private static final String TABLE = "table t: csv(\"%s\") key k\ntarget o: json { v = t[\"a\"].v }\n";
    private static final String USE = "use \"%s\"\ntarget o: json { v = z }\n";
    private static final String SAMPLE = "source s: csv(sample = \"%s\")\ntarget o: jsonl { for x in s { v = x.v } }\n";

    @TempDir
    private Path outside;

    private Path folder;

    @BeforeEach
    void prepare() throws IOException {
        folder = Files.createDirectories(outside.resolve("own/4")).getParent();
        Files.writeString(outside.resolve("t.csv"), "k,v\na,b\n");
        Files.writeString(outside.resolve("u.morphema"), "morphema 1\nlet z = 1\n");
        Files.writeString(folder.resolve("t.csv"), "k,v\na,own\n");
        Files.createSymbolicLink(folder.resolve("link.csv"), Path.of("../t.csv"));
    }

    private Checked check(Morphema morphema, String text) throws IOException {
        return morphema.check(Files.writeString(folder.resolve("m.morphema"), "morphema 1\n" + text));
    }

    private Problem refused(String text) throws IOException {
        Checked checked = check(Morphema.standard(), text);
        assertThat(checked.mapping()).isEmpty();
        Problem problem = checked.problems().get(0);
        assertThat(problem.rule()).isNotNull();
        return problem;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"/etc/passwd", "../t.csv", "4/../../t.csv", "link.csv", "../not-there.csv", "/dev/zero", "4"})
    @DisplayName("files elsewhere, by whatever name, are refused as tables and samples")
    void elsewhere(String file) throws IOException {
        assertThat(refused(TABLE.formatted(file)).code()).isEqualTo(Code.NOT_ALLOWED);
        assertThat(refused(SAMPLE.formatted(file)).code()).isEqualTo(Code.NOT_ALLOWED);
    }

    @ParameterizedTest
    @ValueSource(strings = {"../*.csv", "/**", "/etc/*"})
    @DisplayName("no pattern looks elsewhere")
    void patterns(String pattern) throws IOException {
        Problem problem = refused(SAMPLE.formatted(pattern));
        assertThat(problem.code()).isEqualTo(Code.NOT_ALLOWED);
        assertThat(problem.toString() + problem.value()).doesNotContain("t.csv");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/dev/zero", "../u.morphema", "../not-there", "4"})
    @DisplayName("mappings elsewhere are not used")
    void usedElsewhere(String file) throws IOException {
        assertThat(refused(USE.formatted(file)).code()).isEqualTo(Code.NOT_ALLOWED);
    }

    @Test
    @DisplayName("who loads a mapping can allow a folder")
    void allowed() throws IOException {
        Morphema more = Morphema.builder().allowRead(outside).build();
        assertThat(check(more, TABLE.formatted("../t.csv")).mapping()).isPresent();
        assertThat(check(more, TABLE.formatted("link.csv")).mapping()).isPresent();
        assertThat(check(more, USE.formatted("../u.morphema")).mapping()).isPresent();
        assertThat(check(more, TABLE.formatted("/etc/passwd")).mapping()).isEmpty();
        assertThat(check(Morphema.standard(), TABLE.formatted("t.csv")).mapping())
                .isPresent();
    }

    @Test
    @DisplayName("nothing of a file is shown that is no mapping")
    void secret() throws IOException {
        Files.writeString(folder.resolve("secret.env"), "PASSWORD=abc\n");
        Problem problem = refused(USE.formatted("secret.env"));
        assertThat(problem.message()).contains("no mapping");
        assertThat(problem.toString() + problem.value() + problem.rule()).doesNotContain("PASSWORD", "abc");
    }

    @Test
    @DisplayName("a circle of mappings that use one another ends, whatever they call each other")
    void circle() throws IOException {
        Files.writeString(folder.resolve("4/z.morphema"), "morphema 1\nlet z = y\nuse \"../4/../y.morphema\"\n");
        Files.writeString(folder.resolve("y.morphema"), "morphema 1\nlet y = 1\nuse \"4/../4/z.morphema\"\n");
        assertThat(check(Morphema.standard(), USE.formatted("4/z.morphema")).mapping())
                .isPresent();
    }

    @Test
    @DisplayName("what is told of very long names and texts is short")
    void longTexts() throws IOException {
        String name = "a".repeat(5_000_000);
        for (String text : new String[] {
            "target o: json { v = " + name + " }", "target o: json { v = \"" + name + "\" + 1 }", "target " + name, name
        }) {
            Problem problem = refused(text);
            assertThat((problem.toString() + problem.value() + problem.rule().text()).length())
                    .isLessThan(20_000);
        }
        assertThat(check(Morphema.standard(), "# " + "x".repeat(17 << 20)).problems())
                .extracting(Problem::code)
                .containsExactly(Code.LIMIT);
    }
}
