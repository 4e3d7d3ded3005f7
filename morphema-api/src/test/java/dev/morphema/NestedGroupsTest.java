package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Groups within groups whose members are written out: passed on one at a time, and the same as if
 * they were held together.
 */
class NestedGroupsTest {
    private static final String ROWS = "source rows: csv { kg: number }\n";
    /** Uses the members as values, so that they are held together, and writes nothing. */
    private static final String HELD = " held? = if false then [xs.id] else absent ";

    @TempDir
    private Path folder;

    private static String csv(int rows, boolean ordered) {
        Random random = new Random(rows);
        List<String> lines = IntStream.range(0, rows)
                .mapToObj(i -> random.nextInt(4) + "," + random.nextInt(4) + "," + random.nextInt(3) + "," + i + ","
                        + random.nextInt(100))
                .toList();
        return "a,b,c,id,kg\n" + (ordered ? lines.stream().sorted() : lines.stream()).collect(Collectors.joining("\n"));
    }

    private static String run(String mapping, String rows, RunOptions options) {
        return Language.run(mapping, Inputs.text("rows", rows), options);
    }

    /**
     * In each, MEMBERS stands for what may hold the members of the outermost groups, and GROUP for
     * how groups are made.
     */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "json { all for r in rows GROUP r.a as xs { a = a MEMBERS  l for x in xs { i = x.id } n = count(xs) } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS b for x in xs GROUP x.b as bs { b = b "
                        + "c for y in bs GROUP y.c as cs { c = c l for z in cs => z.id  k = sum(cs.kg) } k = sum(bs.kg) } k = sum(xs.kg) } }",
                "json { all for r in rows let t = r.kg * 2 GROUP r.a as xs { MEMBERS l for x in xs { i = x.id t = x.t } t = sum(xs.t) } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS l for x in xs where x.kg > 50 numbered n take 3 { i = x.id n = n } } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS l for x in xs sort by x.kg desc, x.id { i = x.id } least = min(xs.kg) } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS in { deep { l for x in xs { i = x.id } n = count(xs) } } } }",
                "json { all for r in rows GROUP r.a as xs keyed by first(xs.id) { MEMBERS l for x in xs { i = x.id } } }",
                "json { all for r in rows GROUP r.a as xs { n = count(xs) MEMBERS l for x in xs { share = x.kg / (sum(xs.kg) + 1) } } }",
                "json { all for r in rows GROUP r.a as xs { let n = count(xs) early = n MEMBERS l for x in xs { i = x.id } late = n } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS l for x in xs { i = x.id } more for x in xs { k = x.kg } } }",
                "xml { All { g for r in rows GROUP r.a as xs { @a = a MEMBERS l for x in xs { @i = x.id } n = count(xs) } } }",
                "xml { All { g for r in rows GROUP r.a as xs { MEMBERS l for x in xs { @i = x.id } @n = count(xs) } } }",
                "json { all for r in rows GROUP r.a as xs { MEMBERS f = first(xs).id l for x in xs { i = x.id } last = last(xs.id) } }"
            })
    @DisplayName("members that are passed on give what members that are held give")
    void asIfHeld(String target) {
        for (String group : List.of("group by", "group runs by")) {
            for (boolean ordered : new boolean[] {true, false}) {
                String mapping = ROWS + "target o: " + target.replace("GROUP", group);
                String rows = csv(400, ordered);
                String held = run(mapping.replace("MEMBERS", HELD), rows, RunOptions.DEFAULT);
                String passing = mapping.replace("MEMBERS", "");
                assertThat(run(passing, rows, RunOptions.DEFAULT)).as(passing).isEqualTo(held);
                assertThat(run(passing, rows, RunOptions.DEFAULT.memory(1)))
                        .as(passing)
                        .isEqualTo(held);
                assertThat(run(passing, "a,b,c,id,kg\n", RunOptions.DEFAULT))
                        .isEqualTo(run(mapping.replace("MEMBERS", HELD), "a,b,c,id,kg\n", RunOptions.DEFAULT));
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "a = a l for x in xs { i = x.id } n = count(xs) | passing each member on, keeping up count(xs)",
                "n = count(xs) l for x in xs { i = x.id } | holding the members",
                "l for x in xs { i = x.id n = count(xs) } | holding the members",
                "l for x in xs { i = x.id } m for x in xs { i = x.id } | holding the members",
                "l for x in xs { i = [xs.id] } | holding the members",
                "let n = count(xs) m = n l for x in xs { i = x.id } | holding the members",
                "let n = count(xs) l for x in xs { i = x.id } m = n | passing each member on, keeping up count(xs)",
                "b for x in xs group runs by x.b as bs { b = b n = count(bs) } | holding the keys"
            })
    @DisplayName("the plan says whether the members of neighbours go on as they come")
    void plan(String body, String groups) {
        String plan = Language.load(
                        ROWS + "target o: json { all for r in rows group runs by r.a as xs { " + body + " } }")
                .plan();
        String said = plan.substring(plan.indexOf("group neighbours by r.a, ") + "group neighbours by r.a, ".length());
        assertThat(said).startsWith(groups);
    }

    @Test
    @DisplayName("each member is a record of its own for the limit of steps")
    void steps() {
        RunOptions few = RunOptions.DEFAULT.limits(Limits.DEFAULT.with(Limit.STEPS, 1_000));
        for (String group : List.of("group by", "group runs by")) {
            String mapping = ROWS + "target o: json { all for r in rows " + group + " r.a as xs { b for x in xs "
                    + group + " x.b as bs { l for y in bs => y.id } } }";
            assertThat(run(mapping, csv(5_000, true), few))
                    .isEqualTo(run(mapping, csv(5_000, true), RunOptions.DEFAULT));
        }
    }

    @Test
    @DisplayName("each document is written while its members come")
    void documents() throws IOException {
        Path out = folder.resolve("out");
        for (String group : List.of("group by", "group runs by")) {
            Language.load(ROWS + "target o: json(indent = 0) for r in rows " + group
                            + " r.a as xs into \"{a}.json\" { a = a l for x in xs => x.id  n = count(xs) }")
                    .run(
                            Inputs.text("rows", "a,id,kg\nx,1,1\nx,2,1\ny,3,1\n"),
                            Outputs.folder("o", out),
                            RunOptions.DEFAULT.memory(1));
            assertThat(OutputFolder.contents(out))
                    .isEqualTo(Map.of(
                            "x.json", "{\"a\":\"x\",\"l\":[\"1\",\"2\"],\"n\":2}\n",
                            "y.json", "{\"a\":\"y\",\"l\":[\"3\"],\"n\":1}\n"));
        }
    }

    @Test
    @DisplayName("a member that cannot be written is told with its place, and nothing is left")
    void failingMember() {
        Path out = folder.resolve("o.json");
        for (String group : List.of("group by", "group runs by")) {
            String mapping = ROWS + "target o: json { g for r in rows " + group
                    + " r.a as xs { l for x in xs => 1 / x.kg  n = count(xs) } }";
            assertThat(Language.failure(mapping, Inputs.text("rows", "a,kg\nx,1\nx,0\n"))
                            .input())
                    .hasToString("rows:3, record 2");
            assertThat(out).doesNotExist();
        }
    }

    @ParameterizedTest
    @CsvSource({"group runs by, 24", "group by, 40"})
    @DisplayName("two groups of a hundred thousand members each fit into little memory")
    void littleMemory(String group, String megabytes) throws IOException, InterruptedException {
        Path rows = folder.resolve("rows.csv");
        String note = "a note that makes the row longer; ".repeat(6);
        Files.writeString(
                rows,
                IntStream.range(0, 200_000)
                        .mapToObj(i -> i / 100_000 + "," + i / 10_000 + ",0," + i + "," + i % 100 + "," + note)
                        .collect(Collectors.joining("\n", "a,b,c,id,kg,note\n", "\n")));
        Process process = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx" + megabytes + "m",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Small.class.getName(),
                        group,
                        rows.toString()))
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (InputStream from = process.getInputStream()) {
            from.transferTo(out);
        }
        assertThat(process.waitFor()).isZero();
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("20 groups, 200000 members");
    }

    /** Writes nested groups in a Java machine of its own, and tells how many there are. */
    static final class Small {
        private Small() {}

        public static void main(String[] args) throws IOException {
            Path out = Path.of(args[1] + ".json");
            Language.load(ROWS + "target o: json(indent = 0) { all for r in rows " + args[0]
                            + " r.a as xs { b for x in xs " + args[0]
                            + " x.b as bs { l for y in bs { i = y.id n = y.note }\nn = count(bs) } n = count(xs) } }")
                    .run(Inputs.file("rows", Path.of(args[1])), Outputs.file("o", out));
            long groups = 0;
            long members = 0;
            try (InputStream in = new BufferedInputStream(Files.newInputStream(out))) {
                for (int c = in.read(), before = 0; c >= 0; before = c, c = in.read()) {
                    groups += before == '"' && c == 'l' ? 1 : 0;
                    members += before == '"' && c == 'i' ? 1 : 0;
                }
            }
            System.out.print(groups + " groups, " + members + " members");
        }
    }
}
