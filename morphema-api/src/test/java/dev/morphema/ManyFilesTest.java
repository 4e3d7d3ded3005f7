package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Sources of many files, targets of many documents, and paths that are read one record at a time.
 */
class ManyFilesTest {
    private static final String SPLIT =
            "source m: csv\ntarget o: json(indent = 0) for r in m into \"{r.name}\" { n = r.n }";

    @TempDir
    private Path folder;

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private static Map<String, String> documents(String mapping, Inputs inputs) {
        Map<String, String> documents = new LinkedHashMap<>();
        Language.load(mapping)
                .run(
                        inputs,
                        Outputs.documents(
                                "o", (name, bytes) -> documents.put(name, new String(bytes, StandardCharsets.UTF_8))));
        return documents;
    }

    @Test
    @DisplayName("files are one sequence, in the order given, each row with its file; kept and streamed alike")
    void sequence() throws IOException {
        List<Path> files = List.of(file("b.csv", "n\n1\n2\n"), file("a.csv", "x,n\n,3\n"), file("c.csv", "n\n"));
        String mapping = "source m: csv(files = many)\ntarget o: jsonl { %sfor r in m { n = r.n  f = stem(r) } }";
        String expected = "{\"n\":\"1\",\"f\":\"b\"}\n{\"n\":\"2\",\"f\":\"b\"}\n{\"n\":\"3\",\"f\":\"a\"}\n";
        assertThat(Language.run(String.format(mapping, ""), Inputs.NONE.andFiles("m", files)))
                .isEqualTo(expected);
        assertThat(Language.run(
                        String.format(mapping, "let all = count(m) if all > 9 { { } } "),
                        Inputs.NONE.andFiles("m", files)))
                .isEqualTo(expected);
    }

    @Test
    @DisplayName("a broken or missing file among many names itself, and nothing is written")
    void brokenFile() throws IOException {
        Path good = file("a.xml", "<A><b>1</b></A>");
        Path bad = file("b.xml", "<A><b>1</A>");
        Mapping mapping = Language.load("source d: xml(files = many)\ntarget o: csv { for x in d { b = x.A.b } }");
        Path out = folder.resolve("out.csv");
        for (Path second : List.of(bad, folder.resolve("none.xml"))) {
            ProblemException thrown = catchThrowableOfType(
                    ProblemException.class,
                    () -> mapping.run(Inputs.NONE.andFiles("d", List.of(good, second)), Outputs.file("o", out)));
            Problem problem = thrown.problem();
            assertThat(
                            problem.input() == null
                                    ? problem.value()
                                    : problem.input().input())
                    .isEqualTo(second.toString());
            assertThat(out).doesNotExist();
        }
    }

    @Test
    @DisplayName("a source of one file refuses several")
    void oneFile() throws IOException {
        Path file = file("a.csv", "n\n1\n");
        Mapping mapping = Language.load("source m: csv\ntarget o: csv { for r in m { n = r.n } }");
        assertThatThrownBy(() -> mapping.run(Inputs.NONE.andFiles("m", List.of(file, file)), Outputs.NONE))
                .hasMessageContaining("one input");
    }

    @Test
    @DisplayName("a document for each turn, of rows or of groups, in memory or in a folder that keeps its other files")
    void documents() throws IOException {
        Inputs rows = Inputs.text("m", "name,n\na.json,1\ncalls/b.json,2\n");
        assertThat(documents(SPLIT, rows))
                .containsExactly(Map.entry("a.json", "{\"n\":\"1\"}\n"), Map.entry("calls/b.json", "{\"n\":\"2\"}\n"));
        Path out = folder.resolve("out");
        Mapping mapping = Language.load(SPLIT);
        assertThat(mapping.run(rows, Outputs.folder("o", out)).written()).containsEntry("o", 2L);
        assertThat(out.resolve("calls/b.json")).hasContent("{\"n\":\"2\"}");
        Files.writeString(out.resolve("other.json"), "kept");
        mapping.run(Inputs.text("m", "name,n\na.json,7\n"), Outputs.folder("o", out));
        assertThat(out.resolve("a.json")).hasContent("{\"n\":\"7\"}");
        assertThat(out.resolve("other.json")).hasContent("kept");
        assertThat(left()).containsExactly("out");
        assertThat(documents(
                        "source m: csv\ntarget o: csv for r in m group by r.k as rs into \"{k}\" { for x in rs { n = x.n } }",
                        Inputs.text("m", "k,n\na,1\nb,2\na,3\n")))
                .containsExactly(Map.entry("a", "n\n1\n3\n"), Map.entry("b", "n\n2\n"));
    }

    private List<String> left() throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(p -> p.getFileName().toString()).sorted().toList();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "../a.json; leads out",
                "/etc/a; empty",
                "a//b; empty",
                "a/; empty",
                "C:a; character",
                "a*b; character",
                "a\\b; character",
                "a.; point",
                "con.json; device",
                "calls/LPT1; device"
            })
    @DisplayName("a document's name that is not safe everywhere is refused, with the row and the rule")
    void unsafeNames(String name, String why) throws IOException {
        Path out = folder.resolve("out");
        Mapping mapping = Language.load(SPLIT);
        ProblemException thrown = catchThrowableOfType(
                ProblemException.class,
                () -> mapping.run(Inputs.text("m", "name,n\ngood,1\n" + name + ",2\n"), Outputs.folder("o", out)));
        assertThat(thrown.problem().code()).isEqualTo(Code.DOCUMENT_NAME);
        assertThat(thrown.problem().message()).contains(why);
        assertThat(thrown.problem().rule()).isNotNull();
        assertThat(thrown.problem().input().record()).isEqualTo(2);
        assertThat(left()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"a,A", "stra\u00DFe,STRASSE", "\u00E9,e\u0301", "a,a/b", "a/b,a", "a/b,A/B"})
    @DisplayName("two documents whose names are one on some file system are refused, with both records")
    void collisions(String first, String second) {
        ProblemException thrown = catchThrowableOfType(
                ProblemException.class,
                () -> documents(SPLIT, Inputs.text("m", "name,n\n" + first + ",1\n" + second + ",2\n")));
        assertThat(thrown.problem().code()).isEqualTo(Code.DOCUMENT_NAME);
        assertThat(thrown.problem().input().record()).isEqualTo(2);
        assertThat(thrown.problem().help()).contains("m:2, record 1");
    }

    @Test
    @DisplayName("a target of many documents has a folder, one of a single document a file, and each is told")
    void wrongOutputs() throws IOException {
        Inputs rows = Inputs.text("m", "name,n\na,1\n");
        assertThatThrownBy(() -> Language.load(SPLIT).run(rows, Outputs.file("o", folder.resolve("x"))))
                .hasMessageContaining("a folder");
        assertThatThrownBy(() -> Language.load("source m: csv\ntarget o: csv { for r in m { n = r.n } }")
                        .run(rows, Outputs.folder("o", folder.resolve("x"))))
                .hasMessageContaining("a file");
        assertThatThrownBy(() -> Language.load(SPLIT).messages("m", "o")).hasMessageContaining("many documents");
        assertThat(Language.places("source m: csv\ntarget o: json for r in m keyed by r.n into \"{r.n}\" { n = r.n }"))
                .containsExactly("3:16 target-form");
        assertThat(Language.check("source m: csv\ntarget o: json for r in m into { n = r.n }"))
                .first()
                .satisfies(problem -> assertThat(problem.message()).contains("the name of each document's file"));
        assertThat(left()).isEmpty();
    }

    @Test
    @DisplayName("a repeated path is read one element at a time, other parts beside it, also of a stream")
    void paths() {
        String mapping = "source d: xml\ntarget o: jsonl { for c in d.N.Call { i = c.@i  day = d.N.Day  k = d.N.@k } }";
        String document = "<N k=\"1\"><Call i=\"1\"/><Day>2</Day><Other/><Call i=\"2\"/></N>";
        String expected = "{\"i\":\"1\",\"day\":\"2\",\"k\":\"1\"}\n{\"i\":\"2\",\"day\":\"2\",\"k\":\"1\"}\n";
        assertThat(Language.load(mapping).plan())
                .contains("read d, each N.Call: one record at a time\n  fields {@i}")
                .contains("read d, the rest: as a whole\n  fields {N {Day, @k}}");
        assertThat(Language.run(mapping, Inputs.text("d", document))).isEqualTo(expected);
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Result result = Language.load(mapping)
                .run(Inputs.stream("d", new ByteArrayInputStream(bytes)), Outputs.stream("o", out));
        assertThat(out).hasToString(expected);
        assertThat(result.read()).containsEntry("d", 2L);
    }

    @Test
    @DisplayName("a path that is used otherwise too keeps the whole document")
    void keptPaths() {
        String loop = "target o: json { l for c in d.N.Call => c.@i  %s }";
        for (String other : List.of(
                "n = [d.N.Call]",
                "n = count(d.N.Call) m = [d.N.Call]",
                "n = d.N.Call.@i",
                "n = text(d.N)",
                "n = count(d..i)",
                "n = count(d.*)")) {
            assertThat(Language.load("source d: xml\n" + String.format(loop, other))
                            .plan())
                    .as(other)
                    .contains("read d: as a whole");
        }
        assertThat(Language.load("source d: xml\nlet calls = d.N.Call\n"
                                + String.format(loop, "").replace("d.N.Call", "calls"))
                        .plan())
                .contains("one record at a time");
    }
}
