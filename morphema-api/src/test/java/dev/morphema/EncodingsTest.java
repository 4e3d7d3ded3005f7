package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Bytes never become other characters, whichever way they come in; what is written can be read. */
class EncodingsTest {
    /** A text with {@code \xNN} for bytes. */
    private static byte[] bytes(String text) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (int i = 0; i < text.length(); i++) {
            if (text.startsWith("\\x", i)) {
                out.write(Integer.parseInt(text.substring(i + 2, i + 4), 16));
                i += 3;
            } else {
                out.writeBytes(text.substring(i, i + 1).getBytes(StandardCharsets.UTF_8));
            }
        }
        return out.toByteArray();
    }

    private static Object outcome(String source, Inputs inputs) {
        String target = "\ntarget o: json(indent = 0) = [s]";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Throwable thrown = catchThrowable(
                () -> Language.load("source s: " + source + target).run(inputs, Outputs.stream("o", out)));
        return thrown instanceof ProblemException e ? e.problem().withHelp(null) : out.toString(StandardCharsets.UTF_8);
    }

    private static Object bothWays(String source, byte[] input) {
        Object once = outcome(source, Inputs.bytes("s", input));
        assertThat(outcome(source, Inputs.stream("s", new ByteArrayInputStream(input))))
                .isEqualTo(once);
        return once;
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "xml | <r><a>etc\\xC0\\xAFpasswd</a></r> | bad-encoding 1:10",
                "xml | <r a=\"\\xE0\\x80\\xAF\"/> | bad-encoding 1:7",
                "xml | <r><![CDATA[\\xF4\\x90\\x80\\x80]]></r> | bad-encoding 1:13",
                "xml | <r>\\xED\\xA0\\x80</r> | bad-encoding 1:4",
                "xml | <r>\\xEF\\xBF\\xBE</r> | bad-xml 1:4",
                "xml(encoding = \"UTF-8\") | <r>\\xFF</r> | bad-encoding 1:4",
                "xml(encoding = \"US-ASCII\") | <r>\\xC3\\xA4</r> | bad-encoding 1:4",
                "xml | <?xml version=\"1.0\" encoding=\"Shift_JIS\"?><r>\\xFF</r> | bad-encoding 1:46",
                "xml | <?xml version=\"1.0\" encoding=\"windows-1252\"?><r>\\x81</r> | bad-encoding 1:49",
                "xml | \\xFF\\xFE<\\x00r\\x00/\\x00>\\x00\\x00\\xDC | bad-encoding 1:5",
                "xml | <?xml version=\"1.0\" encoding=\"UTF-16\"?><r/> | bad-encoding 1:1",
                "xml | <?xml version=\"1.0\" encoding=\"no-such\"?><r/> | bad-encoding 1:1",
                "json | [\"\\xC0\\xAF\"] | bad-encoding 1:3",
                "json | {\"\\xC0\\xAF\": 1} | bad-encoding 1:3",
                "json | [\"\\ud800\"] | bad-json 1:2",
                "json | [\"\\udc00\\ud800\"] | bad-json 1:2",
                "json(encoding = \"windows-1252\") | [\"\\x81\"] | bad-encoding 1:3",
                "csv(encoding = \"windows-1252\") | a\\n\\x81\\n | bad-encoding 2:1"
            })
    @DisplayName("wrong bytes are located, by file and by stream alike")
    void wrongBytes(String source, String input, String expected) {
        Problem problem = (Problem) bothWays(source, bytes(input.replace("\\n", "\n")));
        assertThat(problem.code().printed() + " " + problem.input().line() + ":"
                        + problem.input().column())
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "json | [\"\\ud83d\\udea2\"] | [\"\uD83D\uDEA2\"]",
                "json | [\"\\xEF\\xBF\\xBE\"] | [\"\uFFFE\"]",
                "xml | \\xEF\\xBB\\xBF<r>\\xC3\\xA4</r> | [{\"r\":\"ä\"}]",
                "xml(encoding = \"ISO-8859-1\") | <r>\\xE4</r> | [{\"r\":\"ä\"}]",
                "xml(encoding = \"ISO-8859-1\") | \\xEF\\xBB\\xBF<r>\\xC3\\xA4</r> | [{\"r\":\"ä\"}]",
                "xml | \\xFE\\xFF\\x00<\\x00r\\x00/\\x00> | [{\"r\":\"\"}]",
                "xml | <\\x00r\\x00/\\x00>\\x00 | [{\"r\":\"\"}]",
                "xml | <?xml version='1.0' encoding='Shift_JIS'?><r>\\x83A</r> | [{\"r\":\"ア\"}]"
            })
    @DisplayName("right bytes are read, by file and by stream alike")
    void rightBytes(String source, String input, String expected) {
        assertThat(bothWays(source, bytes(input))).isEqualTo(expected + "\n");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<r><xmlns:z/></r>",
                "<r xmlns:p=\"\"/>",
                "<r xmlns:=\"u\"/>",
                "<r a:=\"1\"/>",
                "<a:b:c xmlns:a=\"u\"/>",
                "<r xmlns:xml=\"u\"/>",
                "<r xmlns:xmlns=\"u\"/>",
                "<r xmlns:q=\"http://www.w3.org/2000/xmlns/\"/>",
                "<r xmlns:-=\"u\"/>",
                "<r><?a:b c?></r>",
                "<r p:a=\"1\"/>"
            })
    @DisplayName("breaches of the namespaces of XML are located problems")
    void namespaces(String input) {
        Problem problem = (Problem) bothWays("xml", bytes(input));
        assertThat(problem.code()).isEqualTo(Code.BAD_XML);
        assertThat(problem.input().column()).isPositive();
    }

    @ParameterizedTest
    @ValueSource(strings = {"ISO-2022-JP", "Shift_JIS", "EUC-JP", "windows-31j", "IBM037", "UTF-7"})
    @DisplayName("XML is not written in an encoding that changes characters")
    void unsafeEncodings(String encoding) {
        assertThat(Language.check("target o: xml(encoding = \"" + encoding + "\") { R = 1 }"))
                .extracting(Problem::code)
                .containsExactly(Code.UNKNOWN_OPTION);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "UTF-8",
                "UTF-16",
                "UTF-16LE",
                "UTF-16BE",
                "ISO-8859-1",
                "windows-1252",
                "US-ASCII",
                "GB18030",
                "Big5"
            })
    @DisplayName("XML is read back from each encoding in which it is written")
    void safeEncodings(String encoding) {
        String odd = "ä ¥ ‾ \uD83D\uDEA2 ア € ÿ";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Language.load("target o: xml(encoding = \"" + encoding + "\") { R { Name = \"" + odd + "\" } }")
                .run(Inputs.NONE, Outputs.stream("o", out));
        assertThat(bothWays("xml", out.toByteArray())).isEqualTo("[{\"R\":{\"Name\":\"" + odd + "\"}}]\n");
    }

    @Test
    @DisplayName("a cell that does not come back from the encoding is refused")
    void cells() {
        String mapping = "target o: csv(encoding = \"%s\") { { a = \"¥\" } }";
        for (String encoding : List.of("Shift_JIS", "US-ASCII")) {
            assertThat(Language.failure(String.format(mapping, encoding), Inputs.NONE)
                            .code())
                    .isEqualTo(Code.NOT_WRITABLE);
        }
        assertThat(Charset.forName("Shift_JIS").newEncoder().canEncode('¥')).isTrue();
    }

    @Test
    @DisplayName("a name that is written in XML is read again")
    void names() {
        for (char c = 'A'; c < 0x3200; c++) {
            String name = "n" + c;
            String start = c + "n";
            for (String each : List.of(name, start)) {
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                Throwable refused = catchThrowable(() -> Language.load(
                                "target o: xml { R { copy json('{\"" + each.replace("'", "''") + "\":1}') } }")
                        .run(Inputs.NONE, Outputs.stream("o", out)));
                if (refused == null) {
                    assertThat(outcome("xml", Inputs.bytes("s", out.toByteArray())))
                            .as(each)
                            .isEqualTo("[{\"R\":{\"" + each + "\":\"1\"}}]\n");
                }
                c += each.equals(start) && c > 0x400 ? 6 : 0;
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "<p><b>a</b> <i>b</i></p> | a b",
                "<p xml:space=\"preserve\"><b>a</b>~<i>b</i></p> | a~b",
                "<p><b>a</b><![CDATA[~]]><i>b</i></p> | a~b",
                "<p><b>a</b>&#10;<i>b</i></p> | a~b",
                "<p>~  <b>a</b>~  <i>b</i>~</p> | ab",
                "<p>x~  <b>a</b></p> | x~  a"
            })
    @DisplayName("white space that a reader of the document could see is text, and is copied")
    void whiteSpace(String input, String expected) {
        Inputs inputs = Inputs.text("s", input.replace('~', '\n'));
        String text =
                Language.run("source s: xml\ntarget o: json(indent = 0) = [text(s.p), join(nodes(s.p), \"\")]", inputs);
        String json = expected.replace("~", "\\n");
        assertThat(text).isEqualTo("[\"" + json + "\",\"" + json + "\"]\n");
        String copied = Language.run("source s: xml\ntarget o: xml { p { copy s.p } }", inputs);
        assertThat(Language.run("source s: xml\ntarget o: json(indent = 0) = [text(s.p)]", Inputs.text("s", copied)))
                .isEqualTo("[\"" + json + "\"]\n");
    }

    @Test
    @DisplayName("layout is text where the source says so")
    void layout() {
        String rest = "\ntarget o: json(indent = 0) = [text(s.p)]";
        Inputs inputs = Inputs.text("s", "<p>\n <b>a</b></p>");
        assertThat(Language.run("source s: xml" + rest, inputs)).isEqualTo("[\"a\"]\n");
        assertThat(Language.run("source s: xml(layout = keep)" + rest, inputs)).isEqualTo("[\"\\n a\"]\n");
    }
}
