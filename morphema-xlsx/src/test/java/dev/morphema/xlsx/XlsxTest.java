package dev.morphema.xlsx;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Workbooks are read by the kinds of their cells, and written with them. */
class XlsxTest {
    private static byte[] run(Morphema morphema, String mapping, byte[] input) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        morphema.load("test.morphema", "morphema 1\n" + mapping, Path.of("."))
                .run(Inputs.bytes("s", input), Outputs.stream("o", out));
        return out.toByteArray();
    }

    private static String read(String options, byte[] workbook) {
        String source = "source s: xlsx" + (options.isEmpty() ? "" : "(" + options + ")");
        return new String(
                        run(
                                Morphema.standard(),
                                source + "\ntarget o: json(indent = 0) { for r in s { copy r } }",
                                workbook),
                        StandardCharsets.UTF_8)
                .strip();
    }

    private static byte[] write(String target, String json) {
        return run(Morphema.standard(), "source s: json\ntarget o: " + target, json.getBytes(StandardCharsets.UTF_8));
    }

    private static Problem refused(Runnable run) {
        try {
            run.run();
        } catch (ProblemException e) {
            return e.problem();
        }
        throw new AssertionError("no problem");
    }

    private static Object[] row(Object... cells) {
        return cells;
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("cells are what their kinds and formats say")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "<c><v>0.1</v></c> ~ 0.1",
                "<c><v>12.340000000000002</v></c> ~ 12.340000000000002",
                "<c><v>1E+3</v></c> ~ 1000",
                "<c><v>5.0</v></c> ~ 5",
                "<c s='1'><v>46085</v></c> ~ \"2026-03-04\"",
                "<c s='2'><v>46085.4375</v></c> ~ \"2026-03-04T10:30:00\"",
                "<c s='2'><v>46085</v></c> ~ \"2026-03-04T00:00:00\"",
                "<c s='1'><v>1</v></c> ~ \"1900-01-01\"",
                "<c s='1'><v>61</v></c> ~ \"1900-03-01\"",
                "<c s='3'><v>7.5</v></c> ~ 7.5",
                "<c s='4'><v>0.5</v></c> ~ \"12:00:00\"",
                "<c s='5'><v>46085</v></c> ~ \"2026-03-04\"",
                "<c t='b'><v>1</v></c> ~ true",
                "<c t='str'><f>A1</f><v>x</v></c> ~ \"x\"",
                "<c><f>1+1</f><v>2</v></c> ~ 2",
                "<c t='inlineStr'><is><r><t>a</t></r><r><t>b</t></r></is></c> ~ \"ab\""
            })
    void cells(String cell, String expected) throws IOException {
        byte[] workbook = new RawWorkbook().sheet("A", row("v"), row(cell)).bytes();
        assertThat(read("", workbook)).isEqualTo("[{\"v\":" + expected + "}]");
    }

    @Test
    @DisplayName("days may count from 1904")
    void from1904() throws IOException {
        byte[] workbook = new RawWorkbook()
                .sheet("A", row("v"), row("<c s='1'><v>44623</v></c>"))
                .from1904()
                .bytes();
        assertThat(read("", workbook)).isEqualTo("[{\"v\":\"2026-03-04\"}]");
    }

    private static byte[] calls() throws IOException {
        return new RawWorkbook()
                .sheet("Hidden notes", row("x"), row("y"))
                .sheet("Calls", row("ship", null, "kg"), row("Sula", "odd", 7), row(null, " "), row("Havgap", null, 8))
                .sheet(
                        "More",
                        row("title"),
                        row(),
                        row(null, "ship", "kg"),
                        row(null, "Nordlys", 9),
                        row(null, "total", 24))
                .bytes();
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("sheets, ranges and headers are chosen by options")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "sheet = \"Calls\" ~ [{\"ship\":\"Sula\",\"kg\":7},{\"ship\":\"Havgap\",\"kg\":8}]",
                "sheet = \"More\", skip = 2 ~ [{\"ship\":\"Nordlys\",\"kg\":9},{\"ship\":\"total\",\"kg\":24}]",
                "sheet = \"More\", range = \"B3:C4\" ~ [{\"ship\":\"Nordlys\",\"kg\":9}]",
                "sheet = [\"Calls\", \"Hidden notes\"], sheet-field = \"from\" ~ [{\"ship\":\"Sula\",\"kg\":7,\"from\":\"Calls\"},{\"ship\":\"Havgap\",\"kg\":8,\"from\":\"Calls\"},{\"x\":\"y\",\"from\":\"Hidden notes\"}]",
                "sheet = \"Calls\", header = false, range = \"A2:C2\" ~ [{\"A\":\"Sula\",\"B\":\"odd\",\"C\":7}]",
                "sheet = \"Calls\", columns = [\"a\", \"b\"], skip = 1 ~ [{\"a\":\"Sula\",\"b\":\"odd\"},{\"a\":\"Havgap\"}]"
            })
    void chosen(String options, String expected) throws IOException {
        assertThat(read(options, calls())).isEqualTo(expected);
    }

    @Test
    @DisplayName("if nothing is said, the first sheet that is shown is read")
    void firstShown() throws IOException {
        assertThat(read("", calls())).startsWith("[{\"ship\":\"Sula\"");
        assertThat(read("sheet = \"*\", range = \"B:C\"", calls()))
                .contains("Nordlys")
                .doesNotContain("\"x\"");
    }

    @Test
    @DisplayName("a cell with an error is told where the mapping uses it")
    void errors() throws IOException {
        byte[] workbook = new RawWorkbook()
                .sheet("A", row("a", "b"), row(1, 2), row(3, "<c t='e'><v>#DIV/0!</v></c>"))
                .bytes();
        Problem problem = refused(() -> read("", workbook));
        assertThat(problem.message()).isEqualTo("The cell B3 shows an error instead of a value.");
        assertThat(problem.value()).isEqualTo("#DIV/0!");
        assertThat(problem.input().line()).isEqualTo(3);
        assertThat(run(Morphema.standard(), "source s: xlsx\ntarget o: json(indent = 0) = [s.a]", workbook))
                .asString()
                .isEqualTo("[1,3]\n");
    }

    @Test
    @DisplayName("where several sheets are read, a place names its sheet, also the last")
    void placesOfSheets() throws IOException {
        byte[] workbook = new RawWorkbook()
                .sheet("A", row("a"), row(1))
                .sheet("B", row("a"), row("<c t='e'><v>#DIV/0!</v></c>"))
                .bytes();
        assertThat(refused(() -> read("sheet = \"*\"", workbook)).input().input())
                .endsWith(", sheet B");
        assertThat(refused(() -> read("sheet = \"B\"", workbook)).input().input())
                .doesNotContain("sheet B");
    }

    @Test
    @DisplayName("sheets that there are not, and columns of the same name, are told")
    void wrongSheets() throws IOException {
        assertThat(refused(() -> {
                            try {
                                read("sheet = \"Call\"", calls());
                            } catch (IOException e) {
                                throw new AssertionError(e);
                            }
                        })
                        .help())
                .isEqualTo("did you mean Calls?");
        byte[] twice =
                new RawWorkbook().sheet("A", row("a", "b", "a"), row(1, 2, 3)).bytes();
        assertThat(refused(() -> read("", twice)).message())
                .isEqualTo("Two columns of the sheet have the same name, A and C.");
        assertThat(refused(() -> read("range = \"B2\"", twice)).message())
                .startsWith("The option range is two corners");
    }

    @ParameterizedTest(name = "{1}")
    @DisplayName("what is no workbook is told as what it is")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "a,b ~ This is no workbook. the input looks like text, perhaps CSV, whose format is csv",
                "<a/> ~ This is no workbook. the input looks like XML, whose format is xml",
                "[1] ~ This is no workbook. the input looks like JSON, whose format is json",
                "\u00D0\u00CF\u0011\u00E0 ~ This is a workbook in the older binary form, which is not read. save it as .xlsx",
                "\u00D0\u00CF\u0011\u00E0E_n_c_r_y_p_t_e_d_P_a_c_k_a_g_e_ ~ The workbook is protected by a password. save it without a password",
                "PK\u0003\u0004xx ~ The workbook is damaged, and cannot be read to its end. was it copied whole?"
            })
    void otherKinds(String start, String expected) {
        byte[] bytes = start.replace('_', '\0').getBytes(StandardCharsets.ISO_8859_1);
        Problem problem = refused(() -> read("", bytes));
        assertThat(problem.code()).isEqualTo(Code.BAD_WORKBOOK);
        assertThat(problem.message() + " " + problem.help()).isEqualTo(expected);
    }

    @Test
    @DisplayName("a workbook that is cut anywhere is a problem, never a part of it")
    void cut() throws IOException {
        byte[] whole = calls();
        for (int length = 10; length < whole.length - 1; length += 97) {
            byte[] part = Arrays.copyOf(whole, length);
            assertThat(refused(() -> read("", part)).code()).isEqualTo(Code.BAD_WORKBOOK);
        }
    }

    @Test
    @DisplayName("a small workbook that would become huge is refused")
    void bomb() throws IOException {
        byte[] bomb = new RawWorkbook().sheet("A", row("x".repeat(70 << 20))).bytes();
        assertThat(refused(() -> read("", bomb)).code()).isEqualTo(Code.LIMIT);
        Morphema tight = Morphema.builder()
                .limits(Limits.DEFAULT.with(Limit.BYTES, 1_000))
                .build();
        assertThat(refused(() -> run(tight, "source s: xlsx\ntarget o: json = count(s)", callsUnchecked()))
                        .code())
                .isEqualTo(Code.LIMIT);
    }

    private static byte[] callsUnchecked() {
        try {
            return calls();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    @DisplayName("a workbook given as CSV is told as one")
    void givenAsCsv() {
        Problem problem =
                refused(() -> run(Morphema.standard(), "source s: csv\ntarget o: json = [s.a]", callsUnchecked()));
        assertThat(problem.help()).isEqualTo("the input looks like a workbook, whose format is xlsx");
    }

    @Test
    @DisplayName("what is written reads back with its kinds, and equal runs write equal bytes")
    void writes() {
        String json =
                "[{\"n\":10.50,\"t\":\"007\",\"b\":true,\"x\":null,\"e\":\"\",\"o\":\"ü <&> 😀\",\"big\":12345678901234567},{\"n\":-3,\"t\":\"a\",\"x\":1}]";
        byte[] workbook = write(
                "xlsx { for r in s { copy r  d = date(\"2026-03-04\")  at = datetime(\"2026-03-04T10:30:00\") } }",
                json);
        assertThat(read("", workbook))
                .isEqualTo(
                        "[{\"n\":10.5,\"t\":\"007\",\"b\":true,\"o\":\"ü <&> 😀\",\"big\":\"12345678901234567\",\"d\":\"2026-03-04\",\"at\":\"2026-03-04T10:30:00\"},"
                                + "{\"n\":-3,\"t\":\"a\",\"x\":1,\"d\":\"2026-03-04\",\"at\":\"2026-03-04T10:30:00\"}]");
        assertThat(write("xlsx { for r in s { copy r } }", json))
                .isEqualTo(write("xlsx { for r in s { copy r } }", json));
    }

    @Test
    @DisplayName("a record of lists is a workbook of sheets")
    void sheets() {
        byte[] workbook = write(
                "xlsx { ships for r in s { ship = r.a }  'all of it' for r in s { n = r.a } }",
                "[{\"a\":1},{\"a\":2}]");
        assertThat(read("sheet = \"all of it\"", workbook)).isEqualTo("[{\"n\":1},{\"n\":2}]");
        assertThat(read("sheet = \"*\"", workbook)).isEqualTo("[{\"ship\":1},{\"ship\":2},{\"n\":1},{\"n\":2}]");
        assertThat(read("", write("xlsx(sheet = \"Empty\") { for r in s { a = r.a } }", "[]")))
                .isEqualTo("[]");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what a workbook cannot hold is refused with its rule")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "xlsx { for r in s { a = [r.a, 1] } } ~ A cell holds one value, this is a list.",
                "xlsx { for r in s { a { b = r.a } } } ~ A cell holds one value, this is a record.",
                "xlsx = count(s) ~ A workbook is a list of rows or has sheets, this is a number.",
                "xlsx { a { b = count(s) } } ~ A sheet is a list of rows, this is a record.",
                "xlsx { a for r in s => r.a } ~ A row is a record, this is a number.",
                "xlsx { 'a/b' for r in s { c = r.a } } ~ A sheet cannot have this name.",
                "xlsx { a for r in s { c = r.a }  A for r in s { c = r.a } } ~ The workbook has a sheet of this name already."
            })
    void refusedContents(String target, String message) {
        Problem problem = refused(() -> write(target, "[{\"a\":1}]"));
        assertThat(problem.message()).isEqualTo(message);
        assertThat(problem.code()).isEqualTo(Code.NOT_WRITABLE);
    }

    @ParameterizedTest
    @DisplayName("a column that comes late is told, unless it was looked ahead at")
    @ValueSource(ints = {150, 250})
    void lateColumns(int at) {
        StringBuilder json = new StringBuilder("[");
        for (int i = 0; i < 300; i++) {
            json.append(i == 0 ? "" : ",").append(i < at ? "{\"a\":1}" : "{\"a\":1,\"b\":2}");
        }
        Runnable run = () -> write("xlsx { for r in s { copy r } }", json + "]");
        if (at < 200) {
            run.run();
        } else {
            assertThat(refused(run).value()).isEqualTo("b");
        }
    }
}
