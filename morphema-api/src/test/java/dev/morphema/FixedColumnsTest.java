package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Text whose fields stand at the same places of each line. */
class FixedColumnsTest {
    private static String run(String mapping, String source, String input) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Morphema.standard()
                .load("test.morphema", "morphema 1\n" + mapping, Path.of("."))
                .run(
                        Inputs.bytes(
                                source,
                                input.replace("\\n", "\n").replace("\\r", "\r").getBytes(StandardCharsets.UTF_8)),
                        Outputs.stream("o", out));
        return out.toString(StandardCharsets.UTF_8);
    }

    private static String read(String options, String input) {
        return run("source s: fixed(" + options + ")\ntarget o: json(indent = 0) { for r in s { copy r } }", "s", input)
                .strip();
    }

    private static String write(String options, String json) {
        return run("source s: json\ntarget o: fixed(" + options + ") { for r in s { copy r } }", "s", json)
                .replace("\n", "\\n")
                .replace("\r", "\\r");
    }

    private static Problem problem(Runnable run) {
        try {
            run.run();
        } catch (ProblemException e) {
            return e.problem();
        }
        throw new AssertionError("no problem");
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("fields are read from their places")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "columns = [\"a 1-3\", \"b 4\"] ~ abcd\\n xyz ~ [{\"a\":\"abc\",\"b\":\"d\"},{\"a\":\"xy\",\"b\":\"z\"}]",
                "columns = [\"a 1-3\", \"b 4-6\"] ~ ab\\r\\n   c\\n\\n ~ [{\"a\":\"ab\"},{\"b\":\"c\"}]",
                "columns = [\"a 1-2\", \"all 1-4\"], blank = text ~ abcd\\n\u00A0 \\n ~ [{\"a\":\"ab\",\"all\":\"abcd\"},{\"a\":\"\u00A0\",\"all\":\"\u00A0\"}]",
                "columns = [\"a 1-2\"], longer = cut, skip = 1 ~ head\\nabcd ~ [{\"a\":\"ab\"}]",
                "columns = [\"a 1-2\"], length = 3 ~ `ab cd ef ` ~ [{\"a\":\"ab\"},{\"a\":\"cd\"},{\"a\":\"ef\"}]",
                "columns = [\"a 1-2\"], length = 3 ~ ab \\ncd \\n ~ [{\"a\":\"ab\"},{\"a\":\"cd\"}]",
                "columns = [\"H.a 2-3\", \"L.b 2-9\"], code = \"1\" ~ Hxy\\nLz ~ [{\"H\":{\"a\":\"xy\"}},{\"L\":{\"b\":\"z\"}}]",
                "columns = [\"01.a 3\"], code = \"1-2\", others = skip ~ 01x\\n99y\\n01z ~ [{\"01\":{\"a\":\"x\"}},{\"01\":{\"a\":\"z\"}}]"
            })
    void reads(String options, String input, String expected) {
        assertThat(read(options, input)).isEqualTo(expected);
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("lines that are not as declared are told with their place")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "columns = [\"a 1-2\"] ~ ab\\nabc d ~ 2:3 The line goes on behind its last column, which ends at 2. (c d)",
                "columns = [\"H.a 2\"], code = \"1\" ~ Hx\\nQy ~ 2:1 No columns are declared for lines with this code. (Q)",
                "columns = [\"a 1-4\"], length = 4 ~ abcdab ~ 0:0 The last record has 2 characters instead of 4. (null)"
            })
    void wrongLines(String options, String input, String expected) {
        Problem problem = problem(() -> read(options, input));
        assertThat(problem.input().line() + ":" + problem.input().column() + " " + problem.message() + " ("
                        + problem.value() + ")")
                .isEqualTo(expected);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("columns that cannot be are told when the mapping is checked")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "encoding = \"UTF-8\" ~ The format fixed needs the option columns, a list of texts such as \"name 1-10\", counted from 1.",
                "columns = [\"a\"] ~ \"a\" is no column; one is written \"name 1-10\", counted from 1.",
                "columns = [\"a 0-3\"] ~ \"a 0-3\" is no column; one is written \"name 1-10\", counted from 1.",
                "columns = [\"a 5-3\"] ~ \"a 5-3\" is no column; one is written \"name 1-10\", counted from 1.",
                "columns = [\"a 1\", \"a 2\"] ~ The column a is named twice.",
                "columns = [\"H.a 1\"] ~ \"H.a 1\" has a code; the option code says where it stands: code = \"1-1\".",
                "columns = [\"a 1\"], code = \"1\" ~ \"a 1\" has no code; with the option code each column has: \"L.a 1\".",
                "columns = [\"H.a 2\"], code = \"x\" ~ The option code is the place of the code, such as \"1-2\"."
            })
    void wrongColumns(String options, String message) {
        assertThat(problem(() -> read(options, "")).message()).isEqualTo(message);
        assertThat(problem(() -> write("columns = [\"a 1-3\", \"b 3-4\"]", "[]"))
                        .message())
                .isEqualTo("The columns a and b overlap.");
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("fields are written to their places")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "columns = [\"a 1-3\", \"b 5-8 right\"] ~ [{\"a\":\"x\",\"b\":1.5},{\"b\":\"abcd\"},{\"a\":null}] ~ `x    1.5\\n    abcd\\n        \\n`",
                "columns = [\"n 1-5 right 0\"] ~ [{\"n\":12},{\"n\":-12},{\"n\":-1234}] ~ 00012\\n-0012\\n-1234\\n",
                "columns = [\"a 1-2\"], length = 4, line-end = none ~ [{\"a\":\"x\"},{\"a\":\"yz\"}] ~ `x   yz  `",
                "columns = [\"a 1\"], line-end = crlf ~ [{\"a\":\"x\"}] ~ x\\r\\n",
                "columns = [\"H.a 2-3\", \"L.b 2\"], code = \"1\" ~ [{\"H\":{\"a\":\"x\"}},{\"L\":{\"b\":\"y\"}}] ~ `Hx \\nLy\\n`"
            })
    void writes(String options, String json, String expected) {
        assertThat(write(options, json)).isEqualTo(expected);
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("what does not fit a column is refused, never cut")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "columns = [\"a 1-3\"] ~ [{\"a\":\"abcd\"}] ~ The column a has 3 characters, this value 4.",
                "columns = [\"a 1-3\"] ~ [{\"a\":\"x\\u000ay\"}] ~ A value in a line has a line end of its own.",
                "columns = [\"a 1-3\"] ~ [{\"b\":1}] ~ This record has a field that is no column of the target.",
                "columns = [\"a 1-3\"] ~ [{\"a\":[1]}] ~ A column holds one value, this is a list.",
                "columns = [\"a 1-3\"] ~ [{\"a\":{\"b\":1}}] ~ A column holds one value, this is a record.",
                "columns = [\"a 1-3\"], encoding = \"US-ASCII\" ~ [{\"a\":\"ü\"}] ~ The encoding US-ASCII has no such character.",
                "columns = [\"H.a 2-3\"], code = \"1\" ~ [{\"Q\":{\"a\":1}}] ~ No columns are declared for lines with this code.",
                "columns = [\"H.a 2-3\"], code = \"1\" ~ [{\"H\":1}] ~ A line is a record, this is a number."
            })
    void refused(String options, String json, String message) {
        assertThat(problem(() -> write(options, json)).message()).isEqualTo(message);
    }

    @Test
    @DisplayName("types are applied, and what cannot be converted has its line")
    void typed() {
        String source = "source s: fixed(columns = [\"n 1-3\"]) { n: number }\ntarget o: json = sum(s.n)";
        assertThat(run(source, "s", "1\n 22\n")).isEqualTo("23\n");
        assertThat(problem(() -> run(source, "s", "1\nx\n")).input().line()).isEqualTo(2);
    }
}
