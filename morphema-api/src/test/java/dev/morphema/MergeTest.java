package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Insertion.Existing;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** An output is put into a document that is there, of which nothing else changes. */
class MergeTest {
    private static final String ROWS = "k,v\nB,1\nC,2\n";

    @TempDir
    private Path folder;

    private static final String KEYED = "json { for r in s keyed by r.k { v = r.v } }";
    private static final String LIST = "json { for r in s => r.v }";
    private static final String ELEMENT = "xml { port for r in s where r.k == \"B\" { @k = r.k  v = r.v } }";

    private void run(Morphema morphema, String target, Path file, String path, Existing existing) {
        List<String> steps = path.isEmpty() ? List.of() : List.of(path.split("[.]"));
        morphema.load("test.morphema", "morphema 1\nsource s: csv\ntarget o: " + target, folder)
                .run(Inputs.text("s", ROWS), Outputs.NONE.andMerged("o", file, steps, existing));
    }

    private Path file(String name, String content) throws IOException {
        return Files.writeString(folder.resolve(name), content.replace("\\n", "\n"));
    }

    private Problem refused(String target, Path file, String path, Existing existing) {
        try {
            run(Morphema.standard(), target, file, path, existing);
        } catch (ProblemException e) {
            return e.problem();
        }
        throw new AssertionError("no problem");
    }

    @ParameterizedTest(name = "{0} at {1}")
    @DisplayName("entries come into a JSON document, laid out as what stands there")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "{} ~ `` ~ REFUSED ~ {\"B\": {\"v\": \"1\"}, \"C\": {\"v\": \"2\"}}",
                "{\"p\":{\"A\":{\"v\":0}},\"q\":1} ~ p ~ REFUSED ~ "
                        + "{\"p\":{\"A\":{\"v\":0},\"B\":{\"v\":\"1\"},\"C\":{\"v\":\"2\"}},\"q\":1}",
                "{\\n\\t\"p\": {\\n\\t\\t\"A\": { \"v\": 0 }\\n\\t}\\n}\\n ~ p ~ REFUSED ~ {\\n\\t\"p\": {\\n\\t\\t\"A\": { \"v\": 0 },"
                        + "\\n\\t\\t\"B\": { \"v\": \"1\" },\\n\\t\\t\"C\": { \"v\": \"2\" }\\n\\t}\\n}\\n",
                "{\\n  \"p\": {}\\n} ~ p ~ REFUSED ~ {\\n  \"p\": {\\n    \"B\": {\\n      \"v\": \"1\"\\n    },"
                        + "\\n    \"C\": {\\n      \"v\": \"2\"\\n    }\\n  }\\n}",
                "{\"p\": null} ~ p ~ REFUSED ~ {\"p\": {\"B\": {\"v\": \"1\"}, \"C\": {\"v\": \"2\"}}}",
                "{\"p\": 1} ~ q ~ REFUSED ~ {\"p\": 1, \"q\": {\"B\": {\"v\": \"1\"}, \"C\": {\"v\": \"2\"}}}",
                "{\"p\": {\"B\": 7, \"D\": 8}} ~ p ~ REPLACED ~ {\"p\": {\"B\": {\"v\": \"1\"}, \"D\": 8, \"C\": {\"v\": \"2\"}}}"
            })
    void intoJson(String before, String path, Existing existing, String after) throws IOException {
        Path file = file("config.json", before.replace("\\t", "\t"));
        run(Morphema.standard(), KEYED, file, path, existing);
        assertThat(Files.readString(file).replace("\n", "\\n").replace("\t", "\\t"))
                .isEqualTo(after);
        assertThat(folder.resolve("config.json.bak"))
                .hasContent(before.replace("\\n", "\n").replace("\\t", "\t"));
    }

    @Test
    @DisplayName("a list is added to when that is asked for, and replaced when that is")
    void lists() throws IOException {
        Path file = file("config.json", "{\"p\": [\"0\"], \"q\": []}");
        run(Morphema.standard(), LIST, file, "p", Existing.EXTENDED);
        run(Morphema.standard(), LIST, file, "q", Existing.EXTENDED);
        assertThat(file).hasContent("{\"p\": [\"0\", \"1\", \"2\"], \"q\": [\"1\", \"2\"]}");
        run(Morphema.standard(), LIST, file, "p", Existing.REPLACED);
        assertThat(file).hasContent("{\"p\": [\"1\", \"2\"], \"q\": [\"1\", \"2\"]}");
        assertThat(folder.resolve("config.json.bak"))
                .hasContent("{\"p\": [\"0\", \"1\", \"2\"], \"q\": [\"1\", \"2\"]}");
    }

    @ParameterizedTest(name = "{0} at {1}")
    @DisplayName("an element comes into an XML document, laid out as what stands there")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "<c><d/></c> ~ c ~ REFUSED ~ <c><d/><port k=\"B\"><v>1</v></port></c>",
                "<c/> ~ `` ~ REFUSED ~ <c><port k=\"B\"><v>1</v></port></c>",
                "<c>\\n    <d/> <!-- d -->\\n    <e x='1'/>\\n</c> ~ c.e ~ REFUSED ~ <c>\\n    <d/> <!-- d -->\\n    <e x='1'>"
                        + "\\n        <port k=\"B\">\\n            <v>1</v>\\n        </port>\\n    </e>\\n</c>",
                "<c>\\n <d/> <!-- d -->\\n</c> ~ c ~ REFUSED ~ <c>\\n <d/> <!-- d -->\\n <port k=\"B\">\\n  <v>1</v>\\n </port>\\n</c>",
                "<c xmlns=\"u\"><d/></c> ~ c ~ REFUSED ~ <c xmlns=\"u\"><d/><port xmlns=\"\" k=\"B\"><v>1</v></port></c>",
                "<c><port>old</port><d/></c> ~ c ~ REPLACED ~ <c><port k=\"B\"><v>1</v></port><d/></c>",
                "<c><port>old</port><d/></c> ~ c ~ EXTENDED ~ <c><port>old</port><port k=\"B\"><v>1</v></port><d/></c>"
            })
    void intoXml(String before, String path, Existing existing, String after) throws IOException {
        Path file = file("config.xml", before);
        run(Morphema.standard(), ELEMENT, file, path, existing);
        assertThat(Files.readString(file).replace("\n", "\\n")).isEqualTo(after);
    }

    @Test
    @DisplayName("a document keeps its encoding, its byte order mark and its line ends")
    void encodings() throws IOException {
        Charset latin = StandardCharsets.ISO_8859_1;
        Path xml = Files.writeString(
                folder.resolve("a.xml"),
                "<?xml version='1.0' encoding='ISO-8859-1'?>\r\n<c>\r\n  <d>Å</d>\r\n</c>\r\n",
                latin);
        run(Morphema.standard(), "xml { e = \"Æ€\" }", xml, "c", Existing.REFUSED);
        assertThat(Files.readString(xml, latin))
                .isEqualTo(
                        "<?xml version='1.0' encoding='ISO-8859-1'?>\r\n<c>\r\n  <d>Å</d>\r\n  <e>Æ&#8364;</e>\r\n</c>\r\n");
        Path json = Files.writeString(folder.resolve("a.json"), "\uFEFF{\r\n  \"Å\": 1\r\n}\r\n");
        run(Morphema.standard(), LIST, json, "Æ", Existing.REFUSED);
        assertThat(Files.readString(json))
                .isEqualTo("\uFEFF{\r\n  \"Å\": 1,\r\n  \"Æ\": [\r\n    \"1\",\r\n    \"2\"\r\n  ]\r\n}\r\n");
    }

    @ParameterizedTest(name = "{0} at {1}")
    @DisplayName("what is there is not replaced unasked, and a path that leads nowhere is told")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "{\"p\": {\"C\": 1}} ~ p ~ REFUSED ~ There is an entry C already. ~ 1:13, field p.C",
                "{\"p\": 1} ~ p ~ REFUSED ~ There is an entry p already. ~ 1:7, field p",
                "{\"p\": {\"C\": 1}} ~ p ~ EXTENDED ~ What stands here is no list, so nothing can be added to it. ~ 1:13, field p.C",
                "{\"ports\": {}} ~ port.x ~ REFUSED ~ There is no entry port here, to put something into. ~ 1:1",
                "{\"p\": [1]} ~ p.q ~ REFUSED ~ What stands here has no entries, so nothing can be put into it. ~ 1:7, field p",
                "{\"p\" 1} ~ p ~ REFUSED ~ This is not well-formed JSON here: after a field's name a colon is missing. ~ 1:6"
            })
    void refusals(String before, String path, Existing existing, String message, String place) throws IOException {
        Path file = file("config.json", before);
        Problem problem = refused(KEYED, file, path, existing);
        assertThat(problem.message()).isEqualTo(message);
        assertThat(problem.input()).hasToString(file + ":" + place);
        assertThat(file).hasContent(before);
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).hasSize(1);
        }
    }

    @Test
    @DisplayName("several elements of the name that is meant, no file, and formats of rows are refused")
    void otherRefusals() throws IOException {
        Path file = file("config.xml", "<c><d/><d/><port/><port/></c>");
        assertThat(refused(ELEMENT, file, "c.d", Existing.REFUSED).message())
                .isEqualTo("There are 2 elements d here, and one is meant.");
        assertThat(refused(ELEMENT, file, "c", Existing.REPLACED).message())
                .isEqualTo("There are 2 elements port here, and one is meant.");
        assertThat(refused(ELEMENT, file("one.xml", "<c><port/></c>"), "c", Existing.REFUSED)
                        .message())
                .isEqualTo("There is an entry port already.");
        assertThat(refused(ELEMENT, folder.resolve("no.xml"), "", Existing.REFUSED)
                        .message())
                .isEqualTo("There is no such file that something can be put into.");
        assertThat(refused("csv { for r in s { v = r.v } }", file, "", Existing.REFUSED)
                        .message())
                .isEqualTo("Documents in csv are not put into others.");
    }

    @Test
    @DisplayName("two runs at once do not lose what one of them has written")
    void atOnce() throws IOException {
        Path file = file("config.json", "{}");
        List<String> told = new ArrayList<>();
        Morphema within = Morphema.builder()
                .function("twice(x: text): text", arguments -> {
                    told.add(refused(KEYED, file, "", Existing.REFUSED).message());
                    return arguments.get(0);
                })
                .build();
        run(within, "json { k = twice(\"x\") }", file, "", Existing.REFUSED);
        assertThat(told).containsExactly("Another run changes this file just now.");
        assertThat(file).hasContent("{\"k\": \"x\"}");
    }

    @Test
    @DisplayName("a run that fails changes nothing")
    void failingRuns() throws IOException {
        Path file = file("config.json", "{}");
        assertThat(refused("json { for r in s => number(r.k) }", file, "p", Existing.REFUSED)
                        .isError())
                .isTrue();
        assertThat(file).hasContent("{}");
        assertThat(folder.resolve("config.json.bak")).doesNotExist();
    }
}
