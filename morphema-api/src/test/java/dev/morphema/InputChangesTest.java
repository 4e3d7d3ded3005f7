package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A field that is renamed or vanishes upstream does not turn into missing values silently. */
class InputChangesTest {
    private static final String LOOP = "target o: jsonl { for b in s.r.a { k = b.c } }";

    @TempDir
    private Path folder;

    private static List<Problem> warnings(String mapping, Inputs inputs) {
        return Language.load(mapping).run(inputs, Outputs.NONE).warnings();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "json | {\"q\":1}",
                "json | {}",
                "json | [{\"q\":1},{\"q\":2}]",
                "json | [1,2]",
                "jsonl | {\"q\":1}",
                "xml | <x><a><c/></a></x>"
            })
    @DisplayName("an input with nothing that the mapping reads is refused, as a file and as a stream")
    void refused(String format, String input) {
        String mapping = "source s: " + format + "\n" + LOOP;
        Inputs stream = Inputs.stream("s", new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)));
        assertThat(Language.failure(mapping, Inputs.text("s", input)).code()).isEqualTo(Code.MISMATCH);
        assertThat(Language.failure(mapping, stream).code()).isEqualTo(Code.MISMATCH);
        assertThat(Language.run("source s: " + format + "(mismatch = allow)\n" + LOOP, Inputs.text("s", input)))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {"json | {\"r\":{\"a\":[]}}", "json | []", "jsonl | ``", "xml | <r><a/></r>", "json | null"})
    @DisplayName("an input without records is none")
    void emptyIsNoMismatch(String format, String input) {
        assertThat(warnings("source s: " + format + "\n" + LOOP, Inputs.text("s", input)))
                .allMatch(warning -> warning.code() == Code.NO_RECORDS);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "jsonl | {\"a\":\"x\",\"n\":1}\\n{\"a\":\"y\",\"n\":2} | s",
                "json | {\"r\":[{\"a\":\"x\",\"n\":1},{\"a\":\"y\",\"n\":2}]} | s.r",
                "xml | <r><i><a>x</a><n>1</n></i><i><a>y</a><n>2</n></i></r> | s.r.i"
            })
    @DisplayName("records that go into groups, of which only totals are kept, are watched like others")
    void groups(String format, String input, String records) {
        List<Problem> found = warnings(
                "source s: " + format + "\ntarget o: csv { for r in " + records
                        + " group by a = r.a as rs { a = a  n = count(rs)  sum = sum(rs.nn) } }",
                Inputs.text("s", input.translateEscapes()));
        assertThat(found)
                .extracting(Problem::message)
                .singleElement()
                .asString()
                .contains("has a field nn");
        assertThat(found.get(0).help()).contains("did you mean n?");
    }

    @Test
    @DisplayName("a path that leads nowhere in a whole run is a warning with near names")
    void neverThere() {
        String input = "[{\"ves\":1,\"b\":2},{\"ves\":3,\"b\":{\"x\":1}}]";
        List<Problem> found = warnings(
                "source s: json\ntarget o: jsonl { for b in s { k = b.vess  v = b.b.x } }", Inputs.text("s", input));
        assertThat(found)
                .extracting(Problem::message)
                .containsExactly("No record of the source s has a field vess, so it is absent everywhere.");
        assertThat(found.get(0).help()).isEqualTo("did you mean ves?");
        assertThat(found.get(0).code()).isEqualTo(Code.MISSING_FIELD);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "v = b.zz ?? 1",
                "v? = b.zz",
                "v = exists(b.zz)",
                "v = if b.zz == null then 1",
                "v = first(b.zz.y) ?? b.yy ?? null",
                "v = filled(b.zz)"
            })
    @DisplayName("where the mapping says what to do without a value there is no warning")
    void foreseen(String rule) {
        assertThat(warnings(
                        "source s: json\ntarget o: jsonl { for b in s { k = b.k  " + rule + " } }",
                        Inputs.text("s", "[{\"k\":1},{\"k\":2}]")))
                .isEmpty();
    }

    @Test
    @DisplayName("several samples count as one, and tell what is optional")
    void samples() throws IOException {
        Files.writeString(folder.resolve("one.json"), "{\"a\":1,\"b\":2}");
        Files.writeString(folder.resolve("two.json"), "{\"a\":1,\"c\":3}");
        String rest = ")\ntarget o: json { x = s.a  y = s.b  z = s.c  w = s.q }";
        for (String sample : List.of("[\"one.json\", \"two.json\"]", "\"*.json\"")) {
            String mapping = "morphema 1\nsource s: json(sample = " + sample + rest;
            Checked checked = Morphema.standard().check("m", mapping, folder);
            assertThat(checked.problems())
                    .extracting(Problem::message)
                    .containsExactly("The sample has no field q here.");
            Mapping loaded = checked.orThrow();
            assertThat(loaded.run(Inputs.text("s", "{\"a\":1}"), Outputs.NONE).warnings())
                    .isEmpty();
            assertThat(loaded.run(Inputs.text("s", "{\"b\":1}"), Outputs.NONE).warnings())
                    .extracting(Problem::message)
                    .containsExactly("No record of the source s has a field a, so it is absent everywhere.");
        }
    }

    @Test
    @DisplayName("of many files the one with another content is named")
    void oneOfMany() throws IOException {
        Path good = Files.writeString(folder.resolve("good.xml"), "<N><C i=\"1\"/></N>");
        Path bad = Files.writeString(folder.resolve("bad.xml"), "<M/>");
        Mapping mapping = Language.load(
                "source s: xml(files = many)\ntarget o: jsonl { for d in s for c in d.N.C { i = c.@i } }");
        Throwable thrown = org.assertj.core.api.Assertions.catchThrowable(
                () -> mapping.run(Inputs.NONE.andFiles("s", List.of(good, bad)), Outputs.NONE));
        Problem problem = ((dev.morphema.problem.ProblemException) thrown).problem();
        assertThat(problem.code()).isEqualTo(Code.MISMATCH);
        assertThat(problem.input().input()).isEqualTo(bad.toString());
    }

    @Test
    @DisplayName("CSV with none of the columns is refused")
    void csv() {
        String mapping = "source s: csv%s\ntarget o: csv { for r in s { a = r.a } }";
        assertThat(Language.failure(String.format(mapping, ""), Inputs.text("s", "x,y\n1,2\n"))
                        .message())
                .isEqualTo("The input has none of the columns that the mapping uses.");
        assertThat(Language.run(String.format(mapping, "(mismatch = allow)"), Inputs.text("s", "x,y\n1,2\n")))
                .isEqualTo("a\n\"\"\n");
        assertThat(Language.run(String.format(mapping, ""), Inputs.text("s", "")))
                .isEqualTo("a\n");
    }
}
