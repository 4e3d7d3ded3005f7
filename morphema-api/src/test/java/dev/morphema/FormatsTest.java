package dev.morphema;

import static dev.morphema.Language.failure;
import static dev.morphema.Language.run;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Inputs as they come, and as they come broken. */
class FormatsTest {
    private static String csv(String options, byte[] input) {
        return run("source m: csv" + options + "\ntarget o: jsonl { for r in m { copy r } }", Inputs.bytes("m", input));
    }

    private static String csv(String options, String input) {
        return csv(options, input.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    @DisplayName("CSV: blank is absent, quoted empty is text, quotes and line breaks in cells")
    void csvCells() {
        assertThat(csv("", "a,b,c\n1,,\"\"\n\"x \"\"y\"\"\",\"l1\nl2\", z \n"))
                .isEqualTo("{\"a\":\"1\",\"c\":\"\"}\n{\"a\":\"x \\\"y\\\"\",\"b\":\"l1\\nl2\",\"c\":\" z \"}\n");
        assertThat(csv("(blank = text, trim = true)", "a,b\n, x \n")).isEqualTo("{\"a\":\"\",\"b\":\"x\"}\n");
    }

    @Test
    @DisplayName("CSV: delimiters, no header, named columns, skipped lines, CRLF")
    void csvDialects() {
        assertThat(csv("(delimiter = \"\\t\")", "a\tb\r\n1\t2\r\n")).isEqualTo("{\"a\":\"1\",\"b\":\"2\"}\n");
        assertThat(csv("(delimiter = \"||\", quote = \"'\")", "a||b\n'1||2'||3\n"))
                .isEqualTo("{\"a\":\"1||2\",\"b\":\"3\"}\n");
        assertThat(csv("(header = false)", "1,2\n3\n"))
                .isEqualTo("{\"column1\":\"1\",\"column2\":\"2\"}\n" + "{\"column1\":\"3\"}\n");
        assertThat(csv("(columns = [\"x\", \"y\"])", "1,2\n")).isEqualTo("{\"x\":\"1\",\"y\":\"2\"}\n");
        assertThat(csv("(skip = 2)", "report\nof today\na\n1\n")).isEqualTo("{\"a\":\"1\"}\n");
    }

    @Test
    @DisplayName("a field whose text is a document of its own is read as that document")
    void documentsInFields() {
        String mapping = """
                source m: csv { p: json  n: xml }
                target o: jsonl { for r in m { kg = sum(r.p.lots.kg)  all? = r.p  n? = r.n.note.text  lang? = r.n.note.@lang } }
                """;
        assertThat(run(mapping, Inputs.text("m", """
                        p,n
                        "{""lots"":[{""kg"":1.5},{""kg"":2}]}",<note lang="no"><text>hei</text></note>
                        ,
                        "[1]",
                        """))).isEqualTo("""
                        {"kg":3.5,"all":{"lots":[{"kg":1.5},{"kg":2}]},"n":"hei","lang":"no"}
                        {"kg":0}
                        {"kg":0,"all":[1]}
                        """);
        assertThat(run(
                        "source m: json { p: json }\ntarget o: jsonl { for r in m { x = r.p.x } }",
                        Inputs.text("m", "[{\"p\":\"{\\\"x\\\":1}\"},{\"p\":{\"x\":2}},{\"p\":null},{}]")))
                .isEqualTo("{\"x\":1}\n{\"x\":2}\n{}\n{}\n");
    }

    @Test
    @DisplayName("a document in a field that is not well-formed is told with the place of the field")
    void wrongDocumentsInFields() {
        Problem problem = failure(
                "source m: csv { p: json }\ntarget o: jsonl { for r in m { x = r.p.x } }",
                Inputs.text("m", "p\n{\"\"x\"\":}\n".replace("{\"\"x\"\":}", "\"{\"\"x\"\":}\"")));
        assertThat(problem.message()).startsWith("This is not well-formed JSON here: a value is expected.");
        assertThat(problem.input()).hasToString("m:2, record 1, field p");
        assertThat(failure(
                                "source m: csv\nparam p: json\ntarget o: jsonl { for r in m { x = p.x } }",
                                Inputs.text("m", ""))
                        .help())
                .contains("a rule reads a text by json(x)");
    }

    @Test
    @DisplayName("CSV: rows that are too short, columns without name or of the same name")
    void csvRagged() {
        assertThat(csv("", "a,b,c\n1\n")).isEqualTo("{\"a\":\"1\"}\n");
        assertThat(csv("", "a,,c\n1,2,3\n")).isEqualTo("{\"a\":\"1\",\"column2\":\"2\",\"c\":\"3\"}\n");
        assertThat(csv("", "a,a\n1,2\n")).isEqualTo("{\"a\":[\"1\",\"2\"]}\n");
        Problem problem =
                failure("source m: csv\ntarget o: csv { for r in m { a = r.a } }", Inputs.text("m", "a\n1\n2,3\n"));
        assertThat(problem.code()).isEqualTo(Code.BAD_CSV);
        assertThat(problem.input().line()).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "<?xml version=\"1.0\"?>|<m><a>1</a></m> ~ xml",
                "{\"a\":1,\"b\":2}|{\"a\":3,\"b\":4} ~ jsonl",
                "[|{\"a\":1}|] ~ json",
                "a;b|1;2 ~ csv(delimiter = \";\")",
                "a\tb|1\t2 ~ csv(delimiter = \"\\t\")"
            })
    @DisplayName("CSV: an input that is something else is no sequence of empty records")
    void csvThatIsNone(String input, String proposed) {
        Problem problem = failure(
                "source m: csv\ntarget o: csv { for r in m { a = r.a } }",
                Inputs.text("m", input.replace('|', '\n').replace("\\t", "\t")));
        assertThat(problem.code()).isEqualTo(Code.BAD_CSV);
        assertThat(problem.help()).contains(proposed);
    }

    @Test
    @DisplayName("CSV: byte order marks and encodings")
    void csvEncodings() {
        assertThat(csv("", "\uFEFFa\nø\n")).isEqualTo("{\"a\":\"ø\"}\n");
        assertThat(csv("", "\uFEFFa\nø\n".getBytes(StandardCharsets.UTF_16LE))).isEqualTo("{\"a\":\"ø\"}\n");
        assertThat(csv("", "\uFEFFa\nø\n".getBytes(StandardCharsets.UTF_16BE))).isEqualTo("{\"a\":\"ø\"}\n");
        assertThat(csv("(encoding = \"ISO-8859-1\")", "a\nø\n".getBytes(StandardCharsets.ISO_8859_1)))
                .isEqualTo("{\"a\":\"ø\"}\n");
        assertThat(failure(
                                "source m: csv\ntarget o: csv { for r in m { a = r.a } }",
                                Inputs.bytes("m", "a\nø\n".getBytes(StandardCharsets.ISO_8859_1)))
                        .code())
                .isEqualTo(Code.BAD_ENCODING);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {"a,b|1,\"x\" y; 2; 6", "a,b|1,\"x; 2; 3", "a|1|\"x|y\" z; 4; 3"})
    @DisplayName("CSV: a quote that does not fit is found at its line and column")
    void csvBadQuotes(String input, long line, int column) {
        Problem problem = failure(
                "source m: csv\ntarget o: csv { for r in m { a = r.a } }", Inputs.text("m", input.replace('|', '\n')));
        assertThat(problem.code()).isEqualTo(Code.BAD_CSV);
        assertThat(problem.input().line()).isEqualTo(line);
        assertThat(problem.input().column()).isEqualTo(column);
        assertThat(problem.input().text()).isNotBlank();
        assertThat(problem.rule()).isNull();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "{\"a\" 1}; comma|colon; 1; 6",
                "{\"a\": 1,}; name; 1; 9",
                "{\"a\": 1|\"b\": 2}; comma; 2; 1",
                "{\"a\": [1, 2}; bracket; 1; 12",
                "{\"a\": tru}; word; 1; 7",
                "{\"a\": 1} 2; follows the end; 1; 10",
                "{\"a\": 1, \"a\": 2}; twice; 1; 15"
            })
    @DisplayName("JSON that is not well-formed is found at its line and column, in plain words")
    void badJson(String input, String words, long line, int column) {
        Problem problem =
                failure("source d: json\ntarget o: json { a = d.a }", Inputs.text("d", input.replace('|', '\n')));
        assertThat(problem.code()).isEqualTo(Code.BAD_JSON);
        assertThat(problem.message()).containsPattern(words);
        assertThat(problem.input().line()).isEqualTo(line);
        assertThat(problem.input().column()).isEqualTo(column);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "<a><b></a>; end tag; 1",
                "<a>|<b/>; ends before; 2",
                "hello; start; 1",
                "<a/><b/>; follows the root; 1",
                "<a>&x,</a>; not ended by a semicolon; 1",
                "<a b=\"1\" b=\"2\"/>; repeated; 1",
                "<p:a/>; prefix; 1"
            })
    @DisplayName("XML that is not well-formed is found at its line, in plain words")
    void badXml(String input, String words, long line) {
        Problem problem =
                failure("source d: xml\ntarget o: json { a = d.a }", Inputs.text("d", input.replace('|', '\n')));
        assertThat(problem.code()).isEqualTo(Code.BAD_XML);
        assertThat(problem.message()).containsPattern(words);
        assertThat(problem.input().line()).isEqualTo(line);
    }

    @Test
    @DisplayName("XML: attributes, own text, repeated and single elements, namespaces by local name or prefix")
    void xmlReading() {
        String mapping = """
                prefix n = "urn:n"
                source d: xml
                target o: json(indent = 0) {
                  ids = [d.Calls.Call.@id]
                  first = first(d.Calls.Call).Name
                  unit = first(d.Calls.Call.Weight).@unit
                  sum = sum(d.Calls.Call.Weight)
                  exact = d.Calls.n:Note
                  nil = d.Calls.Empty
                  cdata = d.Calls.Text
                }
                """;
        String xml = """
                <x:Calls xmlns:x="urn:n" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">
                  <Call id="1"><Name>A</Name><Weight unit="kg">5</Weight></Call>
                  <Call id="2"><Weight>2.5</Weight></Call>
                  <x:Note>hi</x:Note><Note>other</Note>
                  <Empty xsi:nil="true"/><Text> a&amp;<![CDATA[<b>]]><!-- c -->&#65; </Text>
                </x:Calls>
                """;
        assertThat(run(mapping, Inputs.text("d", xml)))
                .isEqualTo("{\"ids\":[\"1\",\"2\"],\"first\":\"A\",\"unit\":\"kg\",\"sum\":7.5,\"exact\":\"hi\","
                        + "\"nil\":null,\"cdata\":\" a&<b>A \"}\n");
    }

    @Test
    @DisplayName("XML: an element with children is not one value; external entities are never fetched")
    void xmlRefusals() {
        assertThat(failure("source d: xml\ntarget o: json { a = d.a }", Inputs.text("d", "<a><b/></a>"))
                        .message())
                .contains("child elements");
        String external =
                "<!DOCTYPE a SYSTEM \"http://127.0.0.1:9/x.dtd\" [<!ENTITY e SYSTEM \"file:///etc/hostname\">]>"
                        + "<a>[&e;]</a>";
        String out = run("source d: xml\ntarget o: json(indent = 0) { a = d.a }", Inputs.text("d", external));
        assertThat(out).isEqualTo("{\"a\":\"[]\"}\n");
    }

    @Test
    @DisplayName("what is written reads back equal, in every format")
    void roundTrips() {
        String odd = "a;b,\"c\"\\n\\tä€😀 <&> ' end";
        String write = "target o: %s { for x in [1, 2] { n = x  t = \"" + odd.replace("\"", "\\\"") + "\" } }";
        for (String format : new String[] {"csv", "json", "jsonl", "csv(delimiter = \";\")"}) {
            String written = run(String.format(write, format), Inputs.NONE);
            String back = run(
                    "source s: " + format + "\ntarget o: json(indent = 0) { for r in s => [number(r.n), r.t] }",
                    Inputs.text("s", written));
            assertThat(back)
                    .as(format)
                    .isEqualTo(run(
                            "target o: json(indent = 0) = [[1, \"" + odd.replace("\"", "\\\"") + "\"], [2, \""
                                    + odd.replace("\"", "\\\"") + "\"]]",
                            Inputs.NONE));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"[{\"a\":1}] | 1", "[] | 1", "[{\"a\":1}]\\n[{\"a\":2}] | 0", "{\"a\":[1]} | 0"})
    @DisplayName("one JSON array where one record a line is expected is a warning")
    void arrayOfRecordsAsLines(String text, int warnings) {
        Mapping mapping = Language.load("source d: jsonl\ntarget o: jsonl { for r in d { n = count(r.a) } }");
        assertThat(mapping.run(Inputs.text("d", text.translateEscapes()), Outputs.NONE)
                        .warnings())
                .hasSize(warnings)
                .allSatisfy(problem -> assertThat(problem.help()).isEqualTo("the format of such a source is json"));
    }
}
