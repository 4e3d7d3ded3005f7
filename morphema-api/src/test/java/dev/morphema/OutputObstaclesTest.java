package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.junit.jupiter.api.Assumptions.assumeFalse;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Map;
import java.util.Objects;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * What stands where outputs are to be: it is replaced as its owner would want it, or nothing is
 * touched.
 */
@DisabledOnOs(OS.WINDOWS)
class OutputObstaclesTest {
    private static final Mapping MAPPING = Language.load("""
            source s: csv
            target one: csv { for x in s { id = x.id } }
            target docs: json for x in s into "{x.id}.json" { id = x.id }
            """);

    @TempDir
    private Path folder;

    private Path docs;

    @BeforeEach
    void prepare() throws IOException {
        docs = Files.createDirectory(folder.resolve("docs"));
        Files.writeString(docs.resolve("a.json"), "old");
    }

    /** @param ids of the records, one in each line */
    private static void run(String ids, Outputs outputs) {
        MAPPING.run(Inputs.text("s", "id\n" + ids + "\n"), outputs);
    }

    /** {@return the problem of a run that changed nothing} */
    private Problem refused(String ids, Outputs outputs) throws IOException {
        Map<String, String> before = OutputFolder.contents(folder);
        ProblemException thrown = catchThrowableOfType(ProblemException.class, () -> run(ids, outputs));
        assertThat(OutputFolder.contents(folder)).isEqualTo(before);
        return thrown.problem();
    }

    @Test
    @DisplayName("a folder in the place of one document keeps all from their places")
    void folderInTheWay() throws IOException {
        Files.createDirectories(docs.resolve("b.json/inner"));
        Problem problem =
                refused("a\nb", Outputs.file("one", folder.resolve("x.csv")).andFolder("docs", docs));
        assertThat(problem.code()).isEqualTo(Code.NOT_WRITTEN);
        assertThat(problem.message()).contains("A folder stands where an output is to be");
        assertThat(problem.value()).endsWith("b.json");
    }

    @Test
    @DisplayName("a file in the place of a folder keeps all from their places")
    void fileInTheWay() throws IOException {
        assertThat(refused("b\na.json/c", Outputs.folder("docs", docs)).message())
                .contains("A file stands where a folder of outputs is to be");
        assertThat(refused("b", Outputs.folder("docs", docs.resolve("a.json"))).message())
                .contains("A file stands where the folder");
        assertThat(refused("b", Outputs.file("one", docs.resolve("a.json/x.csv")))
                        .message())
                .contains("A file stands where a folder of outputs is to be");
    }

    @Test
    @DisplayName("a file that may only be read is not replaced, before the run reads anything")
    void readOnly() throws IOException {
        Path file = Files.writeString(folder.resolve("x.csv"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("r--r--r--"));
        Inputs unread = Inputs.stream("s", new InputStream() {
            @Override
            public int read() {
                throw new AssertionError("read");
            }
        });
        ProblemException thrown =
                catchThrowableOfType(ProblemException.class, () -> MAPPING.run(unread, Outputs.file("one", file)));
        assertThat(thrown.problem().message()).contains("may only be read");
        assertThat(file).hasContent("old");
        Files.setPosixFilePermissions(docs.resolve("a.json"), PosixFilePermissions.fromString("r--r--r--"));
        assertThat(refused("b\na", Outputs.folder("docs", docs)).message()).contains("may only be read");
    }

    @Test
    @DisplayName("a folder that may not be written to is told before anything is moved")
    void unwritableFolder() throws IOException {
        assumeFalse(Files.isWritable(Path.of("/")), "an administrator may write everywhere");
        Path closed = Files.createDirectory(docs.resolve("sub"));
        Files.setPosixFilePermissions(closed, PosixFilePermissions.fromString("r-xr-xr-x"));
        assertThat(refused("b\nsub/c", Outputs.folder("docs", docs)).message()).contains("may not be written to");
    }

    @Test
    @DisplayName("a writable folder in one that is not is written to")
    void unwritableParent() throws IOException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("r-xr-xr-x"));
        try {
            run("a\nb", Outputs.folder("docs", docs));
            assertThat(docs.resolve("b.json")).content().contains("\"b\"");
        } finally {
            Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        }
    }

    @Test
    @DisplayName("a file that is replaced keeps its mode")
    void mode() throws IOException {
        Path file = Files.writeString(folder.resolve("x.csv"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
        Files.setPosixFilePermissions(docs.resolve("a.json"), PosixFilePermissions.fromString("rw-rw-rw-"));
        run("a", Outputs.file("one", file).andFolder("docs", docs));
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-r-----");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(docs.resolve("a.json"))))
                .isEqualTo("rw-rw-rw-");
        assertThat(file).hasContent("id\na");
    }

    @Test
    @DisplayName("a link to a file stays, and what it leads to is written, also if it is not there yet")
    void links() throws IOException {
        Path link = Files.createSymbolicLink(folder.resolve("link.csv"), Path.of("docs/real.csv"));
        run("a", Outputs.file("one", link));
        assertThat(docs.resolve("real.csv")).hasContent("id\na");
        run("b", Outputs.file("one", link));
        assertThat(docs.resolve("real.csv")).hasContent("id\nb");
        assertThat(link).isSymbolicLink();
        Files.createSymbolicLink(docs.resolve("l.json"), Path.of("a.json"));
        run("l", Outputs.folder("docs", docs));
        assertThat(docs.resolve("a.json")).content().contains("\"l\"");
        assertThat(docs.resolve("l.json")).isSymbolicLink();
    }

    @Test
    @DisplayName("two documents that are the same file by a link are refused")
    void linkToAnother() throws IOException {
        Files.createSymbolicLink(docs.resolve("l.json"), Path.of("a.json"));
        assertThat(refused("a\nl", Outputs.folder("docs", docs)).code()).isEqualTo(Code.USAGE);
    }

    @Test
    @DisplayName("a link that leads out of the output folder is refused")
    void linkOut() throws IOException {
        Path outside = Files.createDirectory(folder.resolve("outside"));
        Files.createSymbolicLink(docs.resolve("sub"), outside);
        assertThat(refused("b\nsub/c", Outputs.folder("docs", docs)).message())
                .contains("leads out of the output folder");
        Files.createSymbolicLink(docs.resolve("f.json"), Files.writeString(outside.resolve("f.json"), "theirs"));
        assertThat(refused("b\nf", Outputs.folder("docs", docs)).message()).contains("leads out of the output folder");
    }

    @Test
    @DisplayName("a circle of links is told")
    void linkToItself() throws IOException {
        Path link = folder.resolve("link.csv");
        Files.createSymbolicLink(link, link);
        assertThat(refused("a", Outputs.file("one", link)).code()).isEqualTo(Code.NOT_WRITTEN);
    }

    @Test
    @DisplayName("what ends in .gz is compressed, one file or many")
    void compressed() throws IOException {
        Path file = folder.resolve("x.csv.gz");
        run("a", Outputs.file("one", file));
        try (GZIPInputStream in = new GZIPInputStream(Files.newInputStream(file))) {
            assertThat(new String(in.readAllBytes(), StandardCharsets.UTF_8)).isEqualTo("id\na\n");
        }
        Mapping many = Language.load(
                "source s: csv\ntarget o: json(indent = 0) for x in s into \"{x.id}.json.gz\" { id = x.id }");
        many.run(Inputs.text("s", "id\na\n"), Outputs.folder("o", docs));
        try (GZIPInputStream in = new GZIPInputStream(Files.newInputStream(docs.resolve("a.json.gz")))) {
            assertThat(new String(in.readAllBytes(), StandardCharsets.UTF_8)).isEqualTo("{\"id\":\"a\"}\n");
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "aux",
                "COM1.x",
                "com\u00B9",
                "lpt\u00B3.tar",
                "conin$",
                "nul .txt",
                "a\u200Bb",
                "a\u202Egpj",
                "\uFEFFa",
                "a\u00ADb",
                "a\u0085b",
                "\u3164",
                "a\uFE0Fb",
                "x\u00A0/y",
                "\u2003x",
                ".x.morphema-part/y",
                "X.MORPHEMA-PART/y",
                "../x",
                "a//b",
                "/x",
                "a\\b",
                "a:b",
                "./x"
            })
    @DisplayName("a name that is not good on every system is refused with the place of the record")
    void names(String name) throws IOException {
        Problem problem = refused("b\n" + name, Outputs.folder("docs", docs));
        assertThat(problem.code()).isEqualTo(Code.DOCUMENT_NAME);
        assertThat(Objects.requireNonNull(problem.input()).line()).isEqualTo(3);
    }

    @ParameterizedTest
    @ValueSource(ints = {251, 300, 70_000})
    @DisplayName("a name that is too long for a file system is refused with the place of the record")
    void longNames(int length) throws IOException {
        Problem problem = refused("b\n" + "x".repeat(length), Outputs.folder("docs", docs));
        assertThat(problem.code()).isEqualTo(Code.DOCUMENT_NAME);
        assertThat(Objects.requireNonNull(problem.input()).line()).isEqualTo(3);
    }
}
