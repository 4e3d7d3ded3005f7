package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Small inputs cannot take much time or memory, and what goes beyond a limit is told with its place
 * and how to allow it.
 */
class LimitsTest {
    private static final String COPY = "source s: %s\ntarget o: json(indent = 0) { copy s }";
    private static final String ROWS = "source s: csv\ntarget o: jsonl { for x in s { copy x } }";

    private static final int LONG = 3 << 17;

    @TempDir
    private Path folder;

    private static Problem exceeded(String mapping, Inputs inputs, Limits limits) {
        ProblemException thrown = catchThrowableOfType(
                ProblemException.class, () -> Language.run(mapping, inputs, RunOptions.DEFAULT.limits(limits)));
        assertThat(thrown).as(mapping).isNotNull();
        assertThat(thrown.problem().code()).isEqualTo(Code.LIMIT);
        return thrown.problem();
    }

    /** A document beyond a limit of 10 or as small as can be, and where that shows. */
    static Stream<Arguments> documents() {
        String deep = "{\"a\":" + "[".repeat(11) + "]".repeat(11) + "}";
        String longText = "x".repeat(LONG);
        return Stream.of(
                Arguments.of(Limit.DEPTH, "json", deep, 1),
                Arguments.of(Limit.DEPTH, "xml", "<a>".repeat(11) + "</a>".repeat(11), 1),
                Arguments.of(Limit.TEXT, "json", "{\"a\":\n\"" + longText + "\"}", 2),
                Arguments.of(Limit.TEXT, "xml", "<a>\n<b>" + longText + "</b></a>", 2),
                Arguments.of(Limit.TEXT, "xml", "<a>\n<b k='" + longText + "'/></a>", 2),
                Arguments.of(Limit.DEPTH, "xml", "<!DOCTYPE a []>" + "<a>".repeat(11) + "</a>".repeat(11), 1),
                Arguments.of(Limit.TEXT, "xml", "<!DOCTYPE a []><a>\n<b>" + longText + "</b></a>", 2),
                Arguments.of(Limit.FIELDS, "xml", "<!DOCTYPE a []><a\n" + numbered("k", "='1' ", 11) + "='1'/>", 1),
                Arguments.of(Limit.NAME, "json", "{\n\"" + "x".repeat(3_000) + "\": 1}", 2),
                Arguments.of(Limit.FIELDS, "csv", numbered("k", ",", 300), 1),
                Arguments.of(Limit.TEXT, "csv", "k\n" + longText + "\n", 2),
                Arguments.of(Limit.TEXT, "csv", "k\n1\n\"" + "x\n".repeat(LONG) + "\"\n", 3));
    }

    private static String numbered(String prefix, String between, int count) {
        return IntStream.range(0, count).mapToObj(i -> prefix + i).collect(Collectors.joining(between));
    }

    @ParameterizedTest
    @MethodSource("documents")
    @DisplayName("a document beyond a limit is refused with its line, as bytes and as a stream")
    void documents(Limit limit, String format, String document, int line) {
        String mapping = format.equals("csv") ? ROWS : COPY.formatted(format);
        long most = Math.max(10, limit.least());
        Limits ten = Limits.DEFAULT.with(limit, most);
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        for (Inputs inputs : List.of(Inputs.bytes("s", bytes), Inputs.stream("s", endless(bytes)))) {
            Problem problem = exceeded(mapping, inputs, ten);
            assertThat(problem.message()).isEqualTo("There are more than " + most + " " + limit.what() + ".");
            assertThat(problem.help()).contains("--limit " + limit.word() + "=");
            assertThat(Objects.requireNonNull(problem.input()).line()).isEqualTo(line);
        }
        Limits more = Limits.DEFAULT.with(limit, Limits.UNLIMITED);
        assertThat(Language.run(mapping, Inputs.bytes("s", bytes), RunOptions.DEFAULT.limits(more)))
                .isNotNull();
    }

    /** A stream of which nobody knows how long it is. */
    private static InputStream endless(byte[] bytes) {
        return new ByteArrayInputStream(bytes);
    }

    @Test
    @DisplayName("names of a document are not taken for what a parser says of limits")
    void namesLikeLimits() {
        assertThat(Language.failure(COPY.formatted("xml"), Inputs.text("s", "<attributes><Limit></attributes>")))
                .satisfies(problem -> assertThat(problem.code()).isEqualTo(Code.BAD_XML))
                .satisfies(problem -> assertThat(problem.message()).contains("</attributes>", "</Limit>"));
    }

    @Test
    @DisplayName("entities cannot make a document large")
    void entities() {
        String lots = "<!DOCTYPE r [<!ENTITY a '" + "x".repeat(100) + "'>"
                + IntStream.range(0, 6)
                        .mapToObj(i ->
                                "<!ENTITY %c '%s'>".formatted('b' + i, ("&" + (char) ('a' + i) + ";").repeat(10)))
                        .collect(Collectors.joining())
                + "]>";
        String parts = lots.replace("x".repeat(100), "<x>1</x>");
        for (String document : List.of(
                lots + "<r>&g;</r>",
                lots + "<r k='&g;'/>",
                parts + "<r>&g;</r>",
                lots + "<r><a>&f;</a><a>&f;</a></r>")) {
            exceeded(COPY.formatted("xml"), Inputs.text("s", document), Limits.DEFAULT.with(Limit.ENTITIES, 1_000_000));
        }
        String many = IntStream.range(0, 20_000)
                .mapToObj(i -> "<!ENTITY e" + i + " 'x'>")
                .collect(Collectors.joining());
        assertThat(Language.failure(COPY.formatted("xml"), Inputs.text("s", "<!DOCTYPE r [" + many + "]><r>&e1;</r>"))
                        .message())
                .isEqualTo("There are more than 262144 characters before the root element.");
        String names =
                "<r>" + IntStream.range(0, 11).mapToObj(i -> "<a" + i + "/>").collect(Collectors.joining()) + "</r>";
        exceeded(
                COPY.formatted("xml"),
                Inputs.text("s", "<!DOCTYPE r []>" + names),
                Limits.DEFAULT.with(Limit.NAMES, 10));
        exceeded(
                COPY.formatted("xml"),
                Inputs.text("s", "<!DOCTYPE r []>" + names.replace("<a", "<?a").replace("/>", "?>")),
                Limits.DEFAULT.with(Limit.NAMES, 10));
        String nothing = lots.replace("x".repeat(100), "").replace("]>", "<!ENTITY h '" + "&g;".repeat(100) + "'>]>");
        assertThat(Language.failure(COPY.formatted("xml"), Inputs.text("s", nothing + "<r>&h;</r>"))
                        .message())
                .startsWith("The entities of this document are used more than 5000000 times");
        assertThat(Language.run(COPY.formatted("xml"), Inputs.text("s", lots + "<r>&c;</r>")))
                .contains("x".repeat(10_000));
    }

    @Test
    @DisplayName("a compressed input that becomes far too large is refused")
    void growth() throws IOException {
        Path bomb = folder.resolve("bomb.csv.gz");
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(bomb))) {
            byte[] rows = "1234567890123456789\n".repeat(50_000).getBytes(StandardCharsets.US_ASCII);
            for (int i = 0; i < 80; i++) {
                out.write(rows);
            }
        }
        String count = "source s: csv(header = false)\ntarget o: json { n = count(s) }";
        Problem problem = exceeded(count, Inputs.file("s", bomb), Limits.DEFAULT);
        assertThat(problem.message()).contains("bytes for each byte of a compressed input");
        assertThat(Objects.requireNonNull(problem.input()).input()).endsWith("bomb.csv.gz");
        Limits more = Limits.DEFAULT.with(Limit.GROWTH, 2_000);
        assertThat(Language.run(count, Inputs.file("s", bomb), RunOptions.DEFAULT.limits(more)))
                .contains("4000000");
    }

    @Test
    @DisplayName("bytes and records of an input can be limited")
    void bytesAndRecords() {
        Inputs rows = Inputs.text("s", "k\n" + "1\n".repeat(2_000));
        exceeded(ROWS, rows, Limits.DEFAULT.with(Limit.BYTES, 1_000));
        exceeded(ROWS, rows, Limits.DEFAULT.with(Limit.RECORDS, 1_999));
        assertThat(Language.run(ROWS, rows, RunOptions.DEFAULT.limits(Limits.DEFAULT.with(Limit.RECORDS, 2_000))))
                .hasLineCount(2_000);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "define f(n) = f(n - 1) + f(n - 1)\ntarget o: json { v = f(100) }",
                "let l = range(1, 1000)\ntarget o: json { v = count([1 for a in l for b in l for c in l for d in l]) }"
            })
    @DisplayName("rules that would go on for ever are stopped by the number of their steps, and told where")
    void steps(String mapping) {
        Problem problem = exceeded(mapping, Inputs.NONE, Limits.DEFAULT.with(Limit.STEPS, 1_000_000));
        assertThat(problem.rule()).isNotNull();
    }

    @Test
    @DisplayName("steps count for each record, so that an input may have any number")
    void stepsOfRecords() {
        String mapping = "source s: csv\ndefine f(n) = if n > 0 then f(n - 1) else 0\n"
                + "target o: jsonl { for x in s { v = f(20) } }";
        Inputs rows = Inputs.text("s", "k\n" + "1\n".repeat(1_000));
        assertThat(Language.run(mapping, rows, RunOptions.DEFAULT.limits(Limits.DEFAULT.with(Limit.STEPS, 2_000))))
                .hasLineCount(1_000);
    }

    @Test
    @DisplayName("a run that takes too long is stopped, and so is one that is cancelled within a record")
    void time() {
        String endless = "let l = range(1, 1000)\n"
                + "target o: json { v = count([1 for a in l for b in l for c in l for d in l]) }";
        RunOptions unlimited = RunOptions.DEFAULT.limits(Limits.DEFAULT.with(Limit.STEPS, Limits.UNLIMITED));
        assertThat(catchThrowableOfType(
                                ProblemException.class,
                                () -> Language.run(endless, Inputs.NONE, unlimited.timeout(Duration.ofMillis(20))))
                        .problem()
                        .message())
                .isEqualTo("There are more than 20 milliseconds.");
        RunControl control = new RunControl();
        control.cancel();
        assertThat(catchThrowableOfType(
                                ProblemException.class,
                                () -> Language.run(endless, Inputs.NONE, unlimited.control(control)))
                        .problem()
                        .code())
                .isEqualTo(Code.CANCELLED);
        assertThat(catchThrowableOfType(
                                ProblemException.class,
                                () -> Language.run(
                                        COPY.formatted("json"), Inputs.text("s", "{}"), unlimited.control(control)))
                        .problem()
                        .code())
                .isEqualTo(Code.CANCELLED);
    }

    /** Texts that all have the same hash where it is that of Java. */
    private static List<String> colliding(int power) {
        List<String> texts = List.of("");
        for (int i = 0; i < power; i++) {
            texts = texts.stream()
                    .flatMap(text -> Stream.of(text + "Aa", text + "BB"))
                    .toList();
        }
        return texts;
    }

    @Test
    @DisplayName("names and keys with the same hash cost no more than others")
    void hashes() {
        List<String> texts = colliding(15);
        assertThat(texts.stream().map(String::hashCode).distinct()).hasSize(1);
        String object = texts.stream().collect(Collectors.joining("\":1,\"", "{\"", "\":1}"));
        String elements = texts.stream().collect(Collectors.joining("/><", "<r><", "/></r>"));
        String attributes = texts.stream().collect(Collectors.joining("='1' ", "<r ", "='1'/>"));
        assertThat(Language.run(COPY.formatted("json"), Inputs.text("s", object)))
                .contains(texts.get(77));
        assertThat(Language.run(COPY.formatted("xml"), Inputs.text("s", elements)))
                .contains(texts.get(77));
        assertThat(Language.run(COPY.formatted("xml"), Inputs.text("s", attributes)))
                .contains(texts.get(77));
        Inputs keys = Inputs.text("s", "k\n" + String.join("\n", texts) + "\n");
        assertThat(Language.run("""
                        source s: csv
                        target o: json(indent = 0) {
                          groups   = count([k for x in s group by x.k as same])
                          several  = count([k for x in s group by [x.k, x.k, "1"] as k as same])
                          distinct = count(distinct(s.k))
                          numbers  = max([i for x in s numbered i by x.k])
                          found    = count([1 for x in s where x.k in s.k])
                        }
                        """.replace("group by [x.k, x.k, \"1\"] as k as same", "group by x.k as same"), keys))
                .isEqualTo("{\"groups\":32768,\"several\":32768,\"distinct\":32768,\"numbers\":1,\"found\":32768}\n");
    }

    @Test
    @DisplayName("a wide row and an element with many attributes are read in one go")
    void wide() {
        String header = numbered("c", ",", 80_000);
        assertThat(Language.run(ROWS, Inputs.text("s", header + "\n" + numbered("", ",", 80_000) + "\n")))
                .contains("\"c79999\":\"79999\"");
        String headless = ROWS.replace("csv", "csv(header = false)");
        assertThat(Language.run(headless, Inputs.text("s", numbered("", ",", 80_000) + "\n")))
                .contains("\"column80000\":\"79999\"");
        assertThat(Language.run(
                        COPY.formatted("xml"), Inputs.text("s", "<r " + numbered("a", "='1' ", 80_000) + "='1'/>")))
                .contains("a79999");
        String nested =
                "<r " + numbered("xmlns:a", "='u' ", 20_000) + "='u'>" + "<b xmlns:c='d'/>".repeat(20_000) + "</r>";
        assertThat(Language.run("source s: xml\ntarget o: json { n = count(s.r.b) }", Inputs.text("s", nested)))
                .contains("20000");
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("the documentation has a row for each limit")
    void documented(Limit limit) throws IOException {
        String usual = limit.usual() == Limits.UNLIMITED ? "unlimited" : String.format("%,d", limit.usual());
        assertThat(Files.readString(Path.of("../docs/command.md")))
                .contains("| `" + limit.word() + "` | " + usual + " | " + limit.what());
    }
}
