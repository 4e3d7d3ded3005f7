package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * What is wider, deeper or longer than there was room for at first is read and written as anything
 * else.
 */
class WideAndDeepTest {
    private static final int LONG = 300_000;

    private static String joined(int count, String mark, IntFunction<String> part) {
        return IntStream.range(0, count).mapToObj(part).collect(Collectors.joining(mark));
    }

    /**
     * A cell, and how it stands in CSV and in JSON: plain, quoted, with quotes inside, beyond
     * ASCII, empty.
     */
    private record Cell(String csv, String json) {
        static Cell of(int i) {
            return switch (i % 7) {
                case 0 -> new Cell("v" + i, "\"v" + i + "\"");
                case 1 -> new Cell("\"a,b " + i + "\"", "\"a,b " + i + "\"");
                case 2 -> new Cell("\"say \"\"" + i + "\"\"\"", "\"say \\\"" + i + "\\\"\"");
                case 3 -> new Cell("Ærø " + i, "\"Ærø " + i + "\"");
                case 4 -> new Cell("\"two\nlines\"", "\"two\\nlines\"");
                case 5 -> new Cell("\"\"", "\"\"");
                default -> new Cell("back\\slash", "\"back\\\\slash\"");
            };
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 31, 32, 33, 64, 65, 200, 1000})
    @DisplayName("rows of any number of columns, read a row at a time and as a whole")
    void columns(int count) {
        List<Cell> row = IntStream.range(0, count).mapToObj(Cell::of).toList();
        String csv = joined(count, ",", i -> "c" + i) + "\n"
                + row.stream().map(Cell::csv).collect(Collectors.joining(",")) + "\n"
                + joined(count, ",", i -> "x" + i) + "\n";
        String expected =
                "{" + joined(count, ",", i -> "\"c" + i + "\":" + row.get(i).json()) + "}\n{"
                        + joined(count, ",", i -> "\"c" + i + "\":\"x" + i + "\"") + "}\n";
        String loop = "target o: jsonl { for r in rows { copy r } }\n";
        assertThat(Language.run("source rows: csv\n" + loop, Inputs.text("rows", csv)))
                .isEqualTo(expected);
        assertThat(Language.run(
                        "source rows: csv\nlet kept = (for r in rows sort by 1)\n" + loop.replace("in rows", "in kept"),
                        Inputs.text("rows", csv)))
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 31, 33, 64, 65, 200})
    @DisplayName("records of any number of fields go to JSON, XML and CSV")
    void fields(int count) {
        String fields = joined(count, ",", i -> "\"f" + i + "\":" + i);
        String source = "source d: jsonl\n";
        Inputs inputs = Inputs.text("d", "{" + fields + "}\n{" + fields + "}\n");
        assertThat(Language.run(source + "target o: jsonl { for r in d { copy r } }", inputs))
                .isEqualTo("{" + fields + "}\n{" + fields + "}\n");
        assertThat(Language.run(
                        source + "target o: xml(indent = 0, declaration = false) { all { r for r in d { copy r } } }",
                        inputs))
                .isEqualTo("<all>"
                        + ("<r>" + joined(count, "", i -> "<f" + i + ">" + i + "</f" + i + ">") + "</r>").repeat(2)
                        + "</all>\n");
        String columns = joined(count, ", ", i -> "\"f" + i + "\"");
        String row = joined(count, ",", String::valueOf) + "\n";
        assertThat(Language.run(
                        source + "target o: csv(columns = [" + columns + "]) { for r in d { copy r } }", inputs))
                .isEqualTo(joined(count, ",", i -> "f" + i) + "\n" + row + row);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 8, 15, 16, 17, 40, 200})
    @DisplayName("attributes of any number")
    void attributes(int count) {
        String element = "<a " + joined(count, " ", i -> "k" + i + "=\"" + i + "\"") + "/>";
        assertThat(Language.run(
                        "source x: xml\ntarget o: xml(indent = 0, declaration = false) { a { copy x.a } }",
                        Inputs.text("x", element)))
                .isEqualTo(element + "\n");
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 8, 9, 16, 17, 33, 200})
    @DisplayName("records within records, and lists within lists")
    void depths(int depth) {
        String records = "{\"a\":".repeat(depth) + "1" + "}".repeat(depth);
        assertThat(Language.run("source d: json\ntarget o: json(indent = 0) { copy d }", Inputs.text("d", records)))
                .isEqualTo(records + "\n");
        String lists = "{\"l\":" + "[".repeat(depth) + "1" + "]".repeat(depth) + "}";
        assertThat(Language.run("source d: json\ntarget o: json(indent = 0) { copy d }", Inputs.text("d", lists)))
                .isEqualTo(lists + "\n");
        String elements = "<a>".repeat(depth) + "<b>x</b>" + "</a>".repeat(depth);
        assertThat(Language.run(
                        "source x: xml\ntarget o: xml(indent = 0, declaration = false) { a { copy x.a } }",
                        Inputs.text("x", elements)))
                .isEqualTo(elements + "\n");
        String pretty = Language.run(
                "source x: xml\ntarget o: xml(declaration = false) { a { copy x.a } }", Inputs.text("x", elements));
        assertThat(pretty.lines().map(String::strip).collect(Collectors.joining()))
                .isEqualTo(elements);
        assertThat(pretty.lines().toList().get(depth)).isEqualTo("  ".repeat(depth) + "<b>x</b>");
    }

    @Test
    @DisplayName("deeper than a thousand is refused, not overflown")
    void tooDeep() {
        int depth = 100_000;
        assertThat(Language.failure(
                                "source d: json\ntarget o: json { copy d }",
                                Inputs.text("d", "{\"a\":".repeat(depth) + "1" + "}".repeat(depth)))
                        .code())
                .isEqualTo(Code.LIMIT);
        assertThat(Language.failure(
                                "source x: xml\ntarget o: xml { a { copy x.a } }",
                                Inputs.text("x", "<a>".repeat(depth) + "</a>".repeat(depth)))
                        .code())
                .isEqualTo(Code.LIMIT);
    }

    @Test
    @DisplayName("texts longer than any buffer, in pieces as a network gives them")
    void longTexts() {
        String text = joined(LONG / 10, "", i -> "abc ÆØ" + i % 1000 + " ");
        String trimmed = text.strip();
        List<String> formats = new ArrayList<>(List.of(
                "source s: csv|a,b\n1," + trimmed + "\n",
                "source s: csv|a,b\n1,\"" + trimmed + "\"\n",
                "source s: jsonl|{\"a\":1,\"b\":\"" + trimmed + "\"}\n",
                "source s: xml|<s><a>1</a><b>" + trimmed + "</b></s>",
                "source s: xml|<s><a>1</a><b><![CDATA[" + trimmed + "]]></b></s>"));
        for (String format : formats) {
            String[] parts = format.split("\\|", 2);
            String rows = parts[0].endsWith("xml") ? "s.s" : "s";
            String mapping =
                    parts[0] + "\ntarget o: json(indent = 0) { for r in " + rows + " { b = r.b  n = length(r.b) } }";
            byte[] bytes = parts[1].getBytes(StandardCharsets.UTF_8);
            Inputs inputs = Inputs.stream("s", new ByteArrayInputStream(bytes) {
                @Override
                public synchronized int read(byte[] into, int offset, int length) {
                    return super.read(into, offset, Math.min(length, 1009));
                }
            });
            assertThat(Language.run(mapping, inputs))
                    .as(parts[0])
                    .isEqualTo("[{\"b\":\"" + trimmed + "\",\"n\":" + trimmed.length() + "}]\n");
        }
    }

    @Test
    @DisplayName("a name may be empty, or anything else that JSON allows")
    void oddNames() {
        String object = "{\"\":1,\" \":2,\"text\":3,\"a.b\":4,\"@k\":5,\"\\\"\":6,\"x:y\":7,\"Ωμ\":8}";
        assertThat(Language.run("source d: json\ntarget o: json(indent = 0) { copy d }", Inputs.text("d", object)))
                .isEqualTo(object + "\n");
        assertThat(Language.run(
                        "source d: json\ntarget o: json(indent = 0) { a = d['']  b = d['@k']  c = d.'a.b' }",
                        Inputs.text("d", object)))
                .isEqualTo("{\"a\":1,\"b\":5,\"c\":4}\n");
    }

    @Test
    @DisplayName("many different keys of an object, each field of its own name")
    void manyNames() {
        String object = "{" + joined(5_000, ",", i -> "\"key " + i + "\":" + i) + "}";
        assertThat(Language.run("source d: json\ntarget o: json(indent = 0) { copy d }", Inputs.text("d", object)))
                .isEqualTo(object + "\n");
        assertThat(Language.run(
                        "source d: json\ntarget o: json(indent = 0) { n = count(entries(d))  last = last(entries(d)).key }",
                        Inputs.text("d", object)))
                .isEqualTo("{\"n\":5000,\"last\":\"key 4999\"}\n");
    }
}
