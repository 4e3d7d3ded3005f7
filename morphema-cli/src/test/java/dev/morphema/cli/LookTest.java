package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How problems, results and progress look on a terminal. */
class LookTest {
    private static final Look TERMINAL = new Look(true, true, true, 60);

    private static String plain(String coloured) {
        return coloured.replaceAll("\u001B\\[[0-9;]*m", "");
    }

    @Test
    @DisplayName("colours and width come from the terminal; NO_COLOR and pipes have none")
    void looks() {
        assertThat(Look.of("out,err", "132", Map.of())).isEqualTo(new Look(true, true, true, 132));
        assertThat(Look.of("out", "", Map.of())).isEqualTo(new Look(true, false, false, 100));
        assertThat(Look.of("out,err", "80", Map.of("NO_COLOR", "1"))).isEqualTo(new Look(false, false, true, 80));
        assertThat(Look.of("out,err", "80", Map.of("TERM", "dumb"))).isEqualTo(new Look(false, false, true, 80));
        assertThat(Look.of("", "", Map.of())).isEqualTo(Look.PLAIN);
    }

    @Test
    @DisplayName("a problem is coloured by its meaning, broken between words, and counted")
    void problems() {
        StringWriter shown = new StringWriter();
        new ProblemPrinter(new PrintWriter(shown), true, true, 60)
                .print(List.of(
                        Problem.error(
                                        Code.KIND,
                                        "This is a sentence of some words that does not fit on a line of sixty.")
                                .withValue("\u001B[31m12x")
                                .withHelp("do this, or that; and if neither is possible, something else"),
                        Problem.warning(Code.UNUSED, "Short.")));
        assertThat(shown.toString())
                .contains("\u001B[1;31merror: ", "\u001B[1;33mwarning: ", "\u001B[32m  try:   ")
                .contains("  value: \uFFFD[31m12x");
        assertThat(plain(shown.toString()).lines())
                .allSatisfy(line -> assertThat(line.length()).isLessThanOrEqualTo(60))
                .contains("1 error, 1 warning");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "1 | 3 | 0123456789012345678… | ^^^",
                "50 | 2 | …3456789012345678901… | '       ^^'",
                "99 | 9 | …1234567890123456789 | '                  ^^'",
                "0 | 1 | 0123456789012345678… | ''"
            })
    @DisplayName("a long line is cut around the place")
    void longLines(int column, int length, String text, String caret) {
        SourceLine line = SourceLine.of("0123456789".repeat(10), column, length, 19);
        assertThat(line.text()).isEqualTo(text);
        assertThat(line.caret()).isEqualTo(caret);
    }

    @Test
    @DisplayName("names in JSON and XML are coloured, and nothing else is changed, however the bytes come")
    void results() throws IOException {
        Map<String, String> documents = Map.of(
                "json", "{\"a\": \"b: \\\"c\\\"\", \"sør\": [1, true, \"x\"]}\n",
                "xml", "<?xml version=\"1.0\"?>\n<a b=\"1 > 0\" c='d'>text &gt; <e/></a>\n");
        for (Map.Entry<String, String> document : documents.entrySet()) {
            byte[] bytes = document.getValue().getBytes(StandardCharsets.UTF_8);
            for (int step = 1; step < bytes.length; step += 3) {
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                ResultColours colours = new ResultColours(out, document.getKey());
                for (int i = 0; i < bytes.length; i += step) {
                    colours.write(bytes, i, Math.min(step, bytes.length - i));
                }
                colours.flush();
                String shown = out.toString(StandardCharsets.UTF_8);
                assertThat(plain(shown)).isEqualTo(document.getValue());
                assertThat(shown)
                        .contains(document.getKey().equals("json") ? "\u001B[36m\"sør\"\u001B[0m" : "\u001B[36m<e/>");
                assertThat(shown).doesNotContain("36m\"b:");
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "50000000|200000000|1000000|2|25 %, 50 of 200 MB, 1,000,000 records, 500,000 a second, 6 s left",
                "50000000|-1|0|2|50 MB",
                "1000000|2000000000|10|2|0 %, 1 of 2,000 MB, 10 records, 5 a second, 66 min left"
            })
    @DisplayName("progress says how much, how fast and how long")
    void progress(long bytes, long all, long records, long seconds, String line) {
        assertThat(Progress.line(bytes, all, records, seconds * 1_000_000_000L)).isEqualTo(line);
    }

    @Test
    @DisplayName("a result on a terminal is coloured, in a pipe it is not")
    void coloured() {
        for (Look look : List.of(Look.PLAIN, TERMINAL)) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ByteArrayOutputStream err = new ByteArrayOutputStream();
            String mapping = "morphema 1\ntarget o: json(indent = 0) { a = 1 }\ntarget p: xml { R = 1 }";
            int code = Main.run(
                    new String[] {"run", "-"},
                    new ByteArrayInputStream(mapping.getBytes(StandardCharsets.UTF_8)),
                    out,
                    err,
                    look,
                    false);
            assertThat(code).isZero();
            String shown = out.toString(StandardCharsets.UTF_8);
            assertThat(plain(shown))
                    .isEqualTo("--- o\n{\"a\":1}\n--- p\n<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<R>1</R>\n");
            assertThat(shown.contains("\u001B")).isEqualTo(look == TERMINAL);
        }
    }
}
