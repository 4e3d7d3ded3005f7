package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Inputs so large that they are read in threads of their own, and held things so many that they
 * leave the memory.
 */
class LargeInputsTest {
    private static final int ROWS = 300_000;
    private static final RunOptions ONE = RunOptions.DEFAULT.threads(1);
    private static final RunOptions SEVERAL = RunOptions.DEFAULT.threads(3);

    @TempDir
    private Path folder;

    private Path file(String name, String header, int rows, IntFunction<String> row) throws IOException {
        String text = IntStream.range(0, rows).mapToObj(row).collect(Collectors.joining("\n", header + "\n", "\n"));
        return Files.writeString(folder.resolve(name), text);
    }

    private Path lines() throws IOException {
        return file("lines.csv", "bill,kg", ROWS, i -> "SKB-" + i * 7919L % 5_000 + "," + i % 90_000 + ".25");
    }

    private Path jsonLines() throws IOException {
        String first = "{\"bill\":\"SKB-0\",\"kg\":0.25}";
        return file(
                "lines.jsonl",
                first,
                ROWS - 1,
                i -> first.replace("0\"", i * 7919L % 5_000 + "\"").replace("0.25", i % 90_000 + ".25"));
    }

    private static String run(String mapping, Inputs inputs, RunOptions options) {
        Mapping loaded = Language.load(mapping);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        loaded.run(inputs, Outputs.stream("o", out), options);
        return out.toString(StandardCharsets.UTF_8);
    }

    private static Problem failure(String mapping, Inputs inputs, RunOptions options) {
        return catchThrowableOfType(ProblemException.class, () -> run(mapping, inputs, options))
                .problem();
    }

    @ParameterizedTest
    @ValueSource(strings = {"csv { kg: number }", "jsonl"})
    void threadsGiveTheSameBytes(String format) throws IOException {
        String mapping = "source lines: " + format + "\ntarget o: jsonl { for l in lines { b = l.bill  k = l.kg } }";
        Inputs inputs = Inputs.file("lines", format.equals("jsonl") ? jsonLines() : lines());
        assertThat(run(mapping, inputs, SEVERAL))
                .isEqualTo(run(mapping, inputs, ONE))
                .hasLineCount(ROWS);
    }

    @Test
    void oneLargeSourceIsReadWhileAnotherWaits() throws IOException {
        String mapping = """
                source lines: csv
                source bills: csv
                table shippers for b in bills key b.bill
                target o: csv { for l in lines { bill = l.bill  shipper = shippers[l.bill].shipper } }
                """;
        Path bills = file(
                "bills.csv",
                "bill,shipper",
                120_000,
                i -> "SKB-" + i + ",A shipper of many a thing by the name of " + i);
        Inputs inputs = Inputs.file("lines", lines()).andFile("bills", bills);
        assertThat(run(mapping, inputs, RunOptions.DEFAULT.threads(2))).isEqualTo(run(mapping, inputs, ONE));
    }

    /**
     * A small input is kept, a large one read once more; so is a stream, which is kept in a file
     * meanwhile.
     */
    @Test
    void totalsAreTheSameOfSmallAndLargeInputs() throws IOException {
        String mapping = """
                source d: xml { Lines.Line.Kg: number }
                target o: json(indent = 0) {
                  heavy for l in d.Lines.Line where l.Kg * 2 > max(d.Lines.Line.Kg) => l.@no
                  lines = count(d.Lines.Line)
                  kg    = sum(d.Lines.Line.Kg)
                  kinds = sorted(distinct(d.Lines.Line.@kind))
                  odd   = count(l for l in d.Lines.Line where l.@kind == "k1")
                  by    = d.Lines.@by
                }
                """;
        assertThat(Language.load(mapping).plan()).doesNotContain("as a whole\n  fields {Lines {Line");
        for (int lines : new int[] {9, 30_000}) {
            String document = IntStream.range(0, lines)
                    .mapToObj(i -> "<Line no='" + i + "' kind='k" + i % 3 + "'><Kg>" + i % 9 + ".5</Kg></Line>")
                    .collect(Collectors.joining("\n", "<Lines by='Skelmar'>", "</Lines>"));
            String heavy = IntStream.range(0, lines)
                    .filter(i -> 2 * (i % 9) + 1 > 8.5)
                    .mapToObj(i -> "\"" + i + "\"")
                    .collect(Collectors.joining(","));
            double kg = IntStream.range(0, lines).mapToDouble(i -> i % 9 + 0.5).sum();
            String expected = "{\"heavy\":[" + heavy + "],\"lines\":" + lines + ",\"kg\":" + kg
                    + ",\"kinds\":[\"k0\",\"k1\",\"k2\"],\"odd\":" + lines / 3 + ",\"by\":\"Skelmar\"}\n";
            Path file = Files.writeString(folder.resolve("lines.xml"), document);
            assertThat(run(mapping, Inputs.file("d", file), ONE)).isEqualTo(expected);
            assertThat(run(mapping, Inputs.file("d", file), SEVERAL)).isEqualTo(expected);
            assertThat(run(mapping, Inputs.stream("d", Files.newInputStream(file)), ONE))
                    .isEqualTo(expected);
        }
    }

    /**
     * One row for each key is kept in another way than many; both must know the same of each row.
     */
    @Test
    void aTableOfManyRowsKnowsAllOfEach() throws IOException {
        Path bills = file(
                "bills.csv",
                "bill,shipper,kg,day,remark",
                5_000,
                i -> "SKB-" + i + ",\"" + (i % 3 == 0 ? "Ø & \"\"Søn\"\"" : "Nordlys") + " " + i + "\"," + i + ".50,"
                        + "2026-03-0" + (1 + i % 9) + "," + (i % 2 == 0 ? "" : "a remark that is longer than others"));
        Inputs inputs = Inputs.file("lines", lines()).andFile("bills", bills);
        String sources = "source lines: csv\nsource bills: csv { kg: number  day: date }\n";
        String target = """
                target o: jsonl(missing = null) {
                  for l in lines let b = %s {
                    bill = l.bill  shipper = b.shipper  half = b.kg / 2  day = b.day  remark = b.remark
                  }
                }
                """;
        String one = sources + "table t for b in bills key b.bill\n" + target.formatted("t[l.bill]");
        String many = sources + "table t for b in bills key b.bill many\n" + target.formatted("first(t[l.bill])");
        assertThat(run(one, inputs, ONE)).isEqualTo(run(many, inputs, ONE)).contains("Søn");

        String all = sources + "table t for b in bills key b.bill\n";
        String rows = "target o: jsonl { for b in %s { bill = b.bill  kg = b.kg } }";
        assertThat(run(all + rows.formatted("t"), inputs, ONE))
                .isEqualTo(run(sources + rows.formatted("bills"), inputs, ONE))
                .hasLineCount(5_000);
    }

    @Test
    void aRowOfALargeTableStillKnowsWhereItStood() throws IOException {
        Path bills = file("bills.csv", "bill,kg", 5_000, i -> "SKB-" + i + "," + (i == 4_000 ? "heavy" : i));
        Inputs inputs = Inputs.file("lines", lines()).andFile("bills", bills);
        String mapping = """
                source lines: csv
                source bills: csv { kg: number }
                table t for b in bills key b.bill
                target o: csv { for l in lines { kg = t[l.bill].kg } }
                """;
        assertThat(failure(mapping, inputs, ONE).input()).hasToString(bills + ":4002, record 4001, field kg");

        Files.writeString(bills, Files.readString(bills).replace("SKB-4000,heavy", "SKB-3999,1"));
        Problem twice = failure(mapping, inputs, ONE);
        assertThat(twice.code()).isEqualTo(Code.DUPLICATE_KEY);
        assertThat(twice.message()).contains("on line 4001 and again on line 4002");
    }

    @ParameterizedTest
    @ValueSource(strings = {"csv", "jsonl"})
    void aFaultInTheInputIsToldAfterWhatStandsBeforeIt(String format) throws IOException {
        Path file = format.equals("csv") ? lines() : jsonLines();
        String text = Files.readString(file);
        int at = text.indexOf('\n', text.length() / 2) + 1;
        Files.writeString(file, text.substring(0, at) + "SKB-1,2,3\n" + text.substring(at));
        Inputs inputs = Inputs.file("lines", file);
        String mapping = "source lines: " + format + "\ntarget o: jsonl { for l in lines { b = l.bill } }";
        Problem several = failure(mapping, inputs, SEVERAL);
        assertThat(several).isEqualTo(failure(mapping, inputs, ONE));
        assertThat(several.code()).isEqualTo(format.equals("csv") ? Code.BAD_CSV : Code.BAD_JSON);
        String failsBefore = mapping.replace("l.bill", "number(l.bill)");
        assertThat(failure(failsBefore, inputs, SEVERAL))
                .isEqualTo(failure(failsBefore, inputs, ONE))
                .extracting(Problem::code)
                .isEqualTo(Code.NOT_A_NUMBER);
    }

    @Test
    void aLoopThatHasEnoughStopsTheReading() throws IOException {
        String mapping = "source lines: jsonl\ntarget o: jsonl { for l in lines take 2 { b = l.bill } }";
        assertThat(run(mapping, Inputs.file("lines", jsonLines()), SEVERAL)).hasLineCount(2);
    }

    @Test
    void manyFilesAreReadAtATimeAndGivenInOrder() throws IOException {
        List<Path> files = new ArrayList<>();
        for (int f = 0; f < 7; f++) {
            int from = f * 100_000;
            files.add(file("part" + f + ".csv", "n,remark", 60_000, i -> from + i + ",calm and clear"));
        }
        String mapping = "source parts: csv(files = many)\ntarget o: jsonl { for p in parts { n = p.n } }";
        Inputs inputs = Inputs.NONE.andFiles("parts", files);
        assertThat(run(mapping, inputs, SEVERAL))
                .isEqualTo(run(mapping, inputs, ONE))
                .hasLineCount(7 * 60_000);
    }

    @Test
    void groupsAndSortsThatLeaveTheMemoryGiveTheSameBytesAndNoFileStays() throws IOException {
        Inputs inputs = Inputs.file("lines", lines());
        String source = "source lines: csv { kg: number }\ntarget o: jsonl { for l in lines ";
        List<String> loops = List.of(
                "sort by l.kg desc, l.bill { b = l.bill  k = l.kg } }",
                "group by b = l.bill as ls { b = b  s = sum(ls.kg)  m = max(ls.kg) } }",
                "group by b = l.bill as ls { b = b  each for x in ls => x.kg } }");
        for (String loop : loops) {
            assertThat(run(source + loop, inputs, RunOptions.DEFAULT.memory(200_000)))
                    .isEqualTo(run(source + loop, inputs, RunOptions.DEFAULT));
        }
        Problem failure = failure(
                source + "sort by l.kg { b = if l.kg > 89000 then number(l.bill) else 0 } }",
                inputs,
                RunOptions.DEFAULT.memory(200_000));
        assertThat(failure.code()).isEqualTo(Code.NOT_A_NUMBER);
        assertThat(failure.input().line()).isGreaterThan(1);
        try (var left = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            assertThat(left.map(Path::toString).filter(name -> name.endsWith(".held")))
                    .isEmpty();
        }
    }
}
