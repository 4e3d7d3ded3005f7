package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** No object gets a field twice, no element an attribute. */
class WrittenOnceTest {
    private static final String JSON =
            "{\"c\":{\"id\":1,\"parts\":\"old\",\"z\":9},\"p\":[{\"n\":\"a\"},{\"n\":\"b\"}],\"on\":true}";
    private static final String XML = "<r><c id=\"1\"><parts>old</parts><z>9</z></c><p n=\"a\"/><p n=\"b\"/></r>";

    private static final Inputs INPUTS = Inputs.text("s", JSON).andText("x", XML);

    private static String mapping(String target) {
        return "source s: json\nsource x: xml\ntarget o: " + target;
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "json(indent = 0) { copy s.c  parts for k in s.p keyed by k.n => 1 } | {\"id\":1,\"parts\":{\"a\":1,\"b\":1},\"z\":9}",
                "json(indent = 0) { q { copy s.c  parts for k in s.p sort by k.n desc => k.n } } | {\"q\":{\"id\":1,\"parts\":[\"b\",\"a\"],\"z\":9}}",
                "xml(indent = 0, declaration = false) { R { copy x.r.c  parts for k in x.r.p => k.@n } } | <R id=\"1\"><parts>a</parts><parts>b</parts><z>9</z></R>",
                "json(indent = 0) { copy s.c  @z = 1 } | {\"id\":1,\"parts\":\"old\",\"z\":1}",
                "json(indent = 0) { copy s.c only id  copy s.c without id } | {\"id\":1,\"parts\":\"old\",\"z\":9}",
                "json(indent = 0) { if s.on { k = 1 } else { k = 2 } } | {\"k\":1}",
                "xml(indent = 0, declaration = false) { R { N = 1  N = 2  if s.on { N = 3 } } } | <R><N>1</N><N>2</N><N>3</N></R>"
            })
    @DisplayName("a field of the block takes the place of the copied one, also where it holds the outermost loop")
    void replacedInPlace(String target, String expected) {
        assertThat(Language.run(mapping(target), INPUTS)).isEqualTo(expected + "\n");
    }

    @Test
    @DisplayName("a copied field is replaced in place by a loop over a stream, too")
    void replacedByStream() {
        String written = Language.run(
                "source c: json\nsource p: csv\ntarget o: json(indent = 0) { copy c  parts for k in p keyed by k.n => 1 }",
                Inputs.text("c", "{\"id\":1,\"parts\":0,\"z\":2}")
                        .andStream("p", new ByteArrayInputStream("n\na\nb\n".getBytes(StandardCharsets.UTF_8))));
        assertThat(written).isEqualTo("{\"id\":1,\"parts\":{\"a\":1,\"b\":1},\"z\":2}\n");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "json { k = s.c.id\\n if s.on { k = 2 } } | 5",
                "xml { R { @k = s.c.id\\n if s.on { @k = 2 } } } | 5",
                "xml { R { copy s.c\\n if s.on { z = 2 } } } | 5",
                "xml { R { copy s.c\\n copy s.c } } | 5",
                "json { copy s.c\\n copy s.c without id } | 5",
                "json { copy s.c\\n if s.on { z = 2 } } | 5",
                "json { for k in s.p keyed by k.n => 1\\n for k in s.p keyed by k.n => 2 } | 5",
                "json { a = 3\\n for k in s.p keyed by k.n => 1 } | 5",
                "json { = s.c.id\\n = s.c.z } | 5",
                "json { r? { k = s.c.id\\n if s.on { k = 2 } } } | 5",
                "json { r = { k = s.c.id\\n if s.on { k = 2 } } } | 5"
            })
    @DisplayName("what the data makes double is an error of the run that names both rules")
    void twiceInARun(String target, int line) {
        Problem problem = Language.failure(mapping(target.translateEscapes()), INPUTS);
        assertThat(problem.code()).isEqualTo(Code.REPEATED_FIELD);
        assertThat(problem.message()).endsWith("the rule on line 4 wrote it.");
        assertThat(problem.rule().line()).isEqualTo(line);
        assertThat(problem.help()).isNotNull();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "json { k = 1  if s.on { k = 2 } } | 4:35 duplicate-field",
                "json { if s.on { k = 2 }  k = \"x\" } | 4:37 duplicate-field",
                "xml { R { @k = 1  if s.on { @k! = s.c.id } } } | 4:40 duplicate-field",
                "json { for y in s.p { k = y.n }  copy s.c } | 4:44 target-form",
                "jsonl { for q in s.p { k = q.n }  for y in s.p keyed by y.n => 1 } | 4:45 target-form",
                "json { l [ { k = s.c.id }  if s.on { copy s.c } ] } | 4:48 target-form"
            })
    @DisplayName("what is surely double is an error of the check")
    void surelyTwice(String target, String place) {
        assertThat(Language.places(mapping(target))).contains(place);
    }

    @Test
    @DisplayName("documents and outputs that would be one file are refused")
    void oneFileTwice() {
        Mapping mapping = Language.load(
                "source m: csv\ntarget each: json for r in m into \"{r.n}.csv\" { n = r.n }\ntarget all: csv { for r in m { n = r.n } }");
        Inputs rows = Inputs.text("m", "n\nindex\n");
        java.nio.file.Path folder =
                java.nio.file.Path.of(System.getProperty("java.io.tmpdir"), "morphema-" + System.nanoTime());
        Problem problem = ((dev.morphema.problem.ProblemException) org.assertj.core.api.Assertions.catchThrowable(() ->
                        mapping.run(rows, Outputs.folder("each", folder).andFile("all", folder.resolve("index.csv")))))
                .problem();
        assertThat(problem.code()).isEqualTo(Code.USAGE);
        assertThat(problem.message()).contains("the same file");
        assertThat(folder).doesNotExist();
    }

    @Test
    @DisplayName("conditions within conditions are looked at once each")
    void manyConditions() {
        String mapping = "source d: json\ntarget o: json(indent = 0) { " + "if d.yes { ".repeat(100) + "k = 1"
                + " }".repeat(100) + " }";
        assertThat(Language.run(mapping, Inputs.text("d", "{\"yes\":true}"))).isEqualTo("{\"k\":1}\n");
    }
}
