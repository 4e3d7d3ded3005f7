package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Loading and running: inputs, outputs, parameters, messages. */
class RunningTest {
    private static final String DOUBLES = "source m: csv { n: number }\ntarget o: json { for r in m => r.n * 2 }";

    @TempDir
    private Path folder;

    @Test
    @DisplayName("a failed run leaves what stood there, and nothing half written")
    void failedRunsTouchNothing() throws IOException {
        Path out = folder.resolve("out.json");
        Files.writeString(out, "before");
        Mapping mapping = Language.load(DOUBLES);
        assertThatThrownBy(() -> mapping.run(Inputs.text("m", "n\n1\nx\n"), Outputs.file("o", out)))
                .isInstanceOf(ProblemException.class);
        assertThat(out).hasContent("before");
        assertThat(names()).containsExactly("out.json");
        mapping.run(Inputs.text("m", "n\n1\n"), Outputs.file("o", out));
        assertThat(out).hasContent("[\n  2\n]");
        assertThat(names()).containsExactly("out.json");
    }

    @Test
    @DisplayName("an output does not take the place of an input")
    void outputOverInput() throws IOException {
        Path file = folder.resolve("rows.csv");
        Files.writeString(file, "n\n1\n2\n");
        Mapping mapping = Language.load("source m: csv { n: number }\ntarget o: csv { for r in m { n = r.n + 1 } }");
        assertThat(failure(() -> mapping.run(Inputs.file("m", file), Outputs.file("o", file))))
                .isEqualTo(Code.USAGE);
        assertThat(file).hasContent("n\n1\n2");
        assertThat(names()).containsExactly("rows.csv");
    }

    @Test
    @DisplayName("streams are read and written, and stay open for the one who opened them")
    void streams() {
        boolean[] closed = {false, false};
        ByteArrayInputStream in = new ByteArrayInputStream("n\n4\n".getBytes(StandardCharsets.UTF_8)) {
            @Override
            public void close() {
                closed[0] = true;
            }
        };
        ByteArrayOutputStream out = new ByteArrayOutputStream() {
            @Override
            public void close() {
                closed[1] = true;
            }
        };
        Language.load(DOUBLES).run(Inputs.stream("m", in), Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("[\n  8\n]\n");
        assertThat(closed).containsExactly(false, false);
    }

    @Test
    @DisplayName("names that the mapping does not have, missing inputs and folders are told")
    void wrongCalls() {
        Mapping mapping = Language.load(DOUBLES);
        assertThat(failure(() -> mapping.run(Inputs.text("n", ""), Outputs.NONE)))
                .isEqualTo(Code.UNKNOWN_SOURCE);
        assertThat(failure(() -> mapping.run(Inputs.NONE, Outputs.NONE))).isEqualTo(Code.MISSING_INPUT);
        assertThat(failure(() -> mapping.run(Inputs.text("m", "n\n1\n"), Outputs.file("p", folder.resolve("x")))))
                .isEqualTo(Code.UNKNOWN_TARGET);
        assertThat(failure(() -> mapping.run(Inputs.text("m", "n\n1\n"), Outputs.file("o", folder))))
                .isEqualTo(Code.NOT_WRITTEN);
        assertThat(failure(() -> mapping.run(Inputs.file("m", folder.resolve("none.csv")), Outputs.NONE)))
                .isEqualTo(Code.FILE_NOT_FOUND);
        assertThat(failure(() -> mapping.messages("m", "x"))).isEqualTo(Code.UNKNOWN_TARGET);
        assertThat(failure(() -> Morphema.standard().load(folder.resolve("none.morphema"))))
                .isEqualTo(Code.FILE_NOT_FOUND);
    }

    private static Code failure(Callable<?> call) {
        try {
            call.call();
            return Code.TODO;
        } catch (ProblemException e) {
            return e.problem().code();
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    @Test
    @DisplayName("parameters have defaults and types")
    void parameters() {
        String mapping = "param n: number = 5\nparam day: date\ntarget o: json(indent = 0) { n = n + 1  day = day }";
        assertThat(Language.run(mapping, Inputs.NONE, RunOptions.DEFAULT.param("day", "2026-03-05")))
                .isEqualTo("{\"n\":6,\"day\":\"2026-03-05\"}\n");
        assertThat(Language.run(
                        mapping,
                        Inputs.NONE,
                        RunOptions.DEFAULT.param("day", "2026-03-05").param("n", "1")))
                .startsWith("{\"n\":2,");
        for (RunOptions wrong : List.of(
                RunOptions.DEFAULT,
                RunOptions.DEFAULT.param("day", "5.3.2026"),
                RunOptions.DEFAULT.param("day", "2026-03-05").param("no", "1"))) {
            assertThatThrownBy(() -> Language.run(mapping, Inputs.NONE, wrong))
                    .isInstanceOfSatisfying(
                            ProblemException.class,
                            e -> assertThat(e.problem().code()).isEqualTo(Code.PARAMETER));
        }
    }

    @Test
    @DisplayName("messages are transformed in memory, by many threads at the same time")
    void messages() throws Exception {
        Messages messages = Language.load("source call: json\ntarget booking: json(indent = 0) { n = call.n * 2 }")
                .messages("call", "booking");
        ExecutorService threads = Executors.newFixedThreadPool(4);
        try {
            List<Future<String>> answers = threads.invokeAll(IntStream.range(0, 500)
                    .<Callable<String>>mapToObj(i -> () ->
                            new String(messages.transform(("{\"n\": " + i + "}").getBytes(StandardCharsets.UTF_8))))
                    .toList());
            for (int i = 0; i < answers.size(); i++) {
                assertThat(answers.get(i).get()).isEqualTo("{\"n\":" + 2 * i + "}\n");
            }
        } finally {
            threads.shutdownNow();
        }
    }

    @Test
    @DisplayName("messages have parameters and further inputs of their own")
    void messagesWithMore() {
        Mapping mapping = Language.load("""
                param day: date
                param times: integer = 1
                source call: json
                source rates: csv
                table rate for r in rates key r.code
                target booking: json(indent = 0) { day = day  fee = call.n * rate[call.code].rate * times }
                """);
        Messages messages = mapping.messages(
                "call",
                "booking",
                Inputs.text("rates", "code,rate\nA,2\nB,3\n"),
                RunOptions.DEFAULT.param("day", "2026-03-05"));
        String call = "{\"code\": \"B\", \"n\": 5}";
        assertThat(messages.transform(call)).isEqualTo("{\"day\":\"2026-03-05\",\"fee\":15}\n");
        assertThat(messages.param("day", "2026-03-06").param("times", "2").transform(call))
                .isEqualTo("{\"day\":\"2026-03-06\",\"fee\":30}\n");
        assertThat(messages.with(Inputs.text("rates", "code,rate\nB,7\n"))
                        .attempt(call)
                        .text())
                .contains("{\"day\":\"2026-03-05\",\"fee\":35}\n");
        assertThat(messages.transform(call)).isEqualTo("{\"day\":\"2026-03-05\",\"fee\":15}\n");
        assertThat(failure(() -> messages.param("dya", "2026-03-06"))).isEqualTo(Code.PARAMETER);
        assertThat(failure(() -> messages.param("day", "yesterday"))).isEqualTo(Code.PARAMETER);
        assertThat(failure(() -> messages.with(Inputs.text("rate", "code,rate\n"))))
                .isEqualTo(Code.UNKNOWN_SOURCE);
        assertThat(failure(() -> mapping.messages("call", "booking"))).isEqualTo(Code.MISSING_INPUT);
        assertThat(failure(() -> mapping.messages(
                        "call",
                        "booking",
                        Inputs.text("rates", "code,rate\n"),
                        RunOptions.DEFAULT.param("times", "many"))))
                .isEqualTo(Code.PARAMETER);
    }

    @Test
    @DisplayName("a message that cannot be transformed is an answer with problems, or an exception")
    void badMessages() {
        Messages messages = Language.load("source call: json\ntarget booking: json { n = call.n * 2 }")
                .messages("call", "booking");
        byte[] bad = "{\"n\": \"x\"}".getBytes(StandardCharsets.UTF_8);
        assertThat(messages.attempt(bad).message()).isEmpty();
        assertThat(messages.attempt(bad).problems().get(0).code()).isEqualTo(Code.NOT_A_NUMBER);
        assertThat(messages.attempt("{\"n\": 1}".getBytes(StandardCharsets.UTF_8))
                        .message())
                .isPresent();
        assertThatThrownBy(() -> messages.transform(bad)).isInstanceOf(ProblemException.class);
    }

    @Test
    @DisplayName("a mapping is loaded from the class path, with its tables")
    void classPath() {
        Mapping mapping = Morphema.standard().load(RunningTest.class.getClassLoader(), "mappings/codes.morphema");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        mapping.run(Inputs.NONE, Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("{\"text\":\"Wheat flour\"}\n");
    }

    @Test
    @DisplayName("use takes in tables, lets and defines of another file; errors name that file")
    void use() throws IOException {
        Files.writeString(folder.resolve("common.morphema"), "morphema 1\ndefine twice(x) = x * 2\n");
        Path main = folder.resolve("main.morphema");
        Files.writeString(
                main, "morphema 1\nuse \"common.morphema\"\ntarget o: json(indent = 0) { a = twice(\"x\") }\n");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThatThrownBy(() -> Morphema.standard().load(main).run(Inputs.NONE, Outputs.stream("o", out)))
                .isInstanceOfSatisfying(ProblemException.class, e -> {
                    assertThat(e.problem().rule().file()).endsWith("common.morphema");
                    assertThat(e.problem().help()).contains("main.morphema:3:34");
                });
    }

    @Test
    @DisplayName("text outside UTF-8 in a mapping is told")
    void mappingInAnotherEncoding() throws IOException {
        Path main = folder.resolve("main.morphema");
        Files.write(main, "morphema 1\n# ø\n".getBytes(StandardCharsets.ISO_8859_1));
        assertThat(Morphema.standard().check(main).problems().get(0).message()).contains("UTF-8");
    }

    private List<String> names() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(p -> p.getFileName().toString()).toList();
        }
    }

    @Test
    @DisplayName(
            "totals of a document that no loop goes through read it for themselves, unless too many places are asked for")
    void planOfTotalsAlone() {
        String source = "source d: json\ntarget o: json { ";
        assertThat(Language.load(source + "n = count(d.a.m)  kg = sum(d.a.m.kg)  h = count(d.h) }")
                        .plan())
                .isEqualTo("""
                        read d, each a.m: one record at a time
                          fields {kg}
                          for count(d.a.m), sum(d.a.m.kg)
                        read d, each h: one record at a time
                          fields {}
                          for count(d.h)
                        write o: json
                        """);
        assertThat(Language.load(source + "n = count(d.a)  m = count(d.b)  k = count(d.c)  h = count(d.h) }")
                        .plan())
                .contains("read d: as a whole");
        assertThat(Language.load(source + "n = count(d.a)  who = d.sender }").plan())
                .contains("read d: as a whole");
    }

    @Test
    @DisplayName("the plan says what streams, what is read and through which stages it goes")
    void plan() {
        Mapping mapping = Language.load("""
                source m: csv { kg: number }
                source d: json
                let heavy = (for r in m where r.kg > 5)
                target a: json { rows for r in heavy group by r.ship as rs sort by sum(rs.kg) desc take 2 => ship }
                target b: csv { for r in m numbered n by r.ship { n = n } }
                target c: json { x = count(d.calls)  y for c in d.calls where exists(c.id) => c }
                """);
        assertThat(mapping.plan()).isEqualTo("""
                        read m: one record at a time
                          fields {kg, ship}
                        read d, each calls: one record at a time
                          fields *
                        read d, each calls, once more: one record at a time
                          for count(d.calls)
                        write a: json
                          for each of heavy
                          group by r.ship, keeping up sum(rs.kg)
                          sort by sum(rs.kg), holding only the first 2 turns
                        write b: csv
                          for each of m
                          number within r.ship
                        write c: json
                          for each of d.calls
                          keep where exists(c.id)
                        """);
    }

    @Test
    @DisplayName("what is declared and never used is a warning")
    void unusedNames() {
        assertThat(Language.places("let a = 1\ntable t { X = 1 }\ndefine f(x) = x\ntarget o: json { b = 1 }"))
                .containsExactly("2:5 unused", "3:7 unused", "4:8 unused");
    }

    @Test
    @DisplayName("the line of a problem is shown, also of a stream that can be read only once")
    void linesOfStreams() {
        String rows = "n\n" + "1\n".repeat(40_000) + "x y z\n";
        for (Inputs inputs : List.of(
                Inputs.text("m", rows),
                Inputs.stream("m", new ByteArrayInputStream(rows.getBytes(StandardCharsets.UTF_8))))) {
            assertThatThrownBy(() -> Language.load(DOUBLES).run(inputs, Outputs.NONE))
                    .isInstanceOfSatisfying(ProblemException.class, e -> {
                        assertThat(e.problem().input().line()).isEqualTo(40_002);
                        assertThat(e.problem().input().text()).isEqualTo("x y z");
                    });
        }
    }

    @Test
    @DisplayName("a function that gives another result on each call is called for each turn, also through a define")
    void newOnEachCall() {
        AtomicInteger calls = new AtomicInteger();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Morphema.builder()
                .function(
                        "ticket(): number",
                        a -> NumberValue.of(calls.incrementAndGet()),
                        JavaFunction.Trait.NEW_EACH_CALL)
                .build()
                .load(
                        "x",
                        "morphema 1\ndefine next(x) = ticket()\ntarget o: json(indent = 0) { for i in range(1, 3) {"
                                + " a = first([ticket()])  b = first([next(1)]) } }",
                        folder)
                .run(Inputs.NONE, Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8))
                .isEqualTo("[{\"a\":1,\"b\":2},{\"a\":3,\"b\":4},{\"a\":5,\"b\":6}]\n");
    }

    @Test
    @DisplayName("functions written in Java are checked and called like those of the language")
    void javaFunctions() {
        Morphema morphema = Morphema.builder()
                .function("checkDigit(code: text, times?: integer): number", arguments -> {
                    String code = ((TextValue) arguments.get(0)).text();
                    int times = arguments.size() > 1
                            ? ((NumberValue) arguments.get(1)).decimal().intValue()
                            : 1;
                    return NumberValue.of(code.chars().map(c -> c - '0').sum() * times % 10);
                })
                .function(
                        "orNone(x: any): text",
                        a -> TextValue.of(
                                a.get(0).isMissing() ? "none" : a.get(0).toString()),
                        JavaFunction.Trait.TAKES_MISSING)
                .function("broken(): text", a -> {
                    throw new IllegalStateException("oh");
                })
                .build();
        String target = "morphema 1\ntarget o: json(indent = 0) { %s }";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        morphema.load(
                        "x",
                        String.format(
                                target,
                                "a = checkDigit(900001)  b = checkDigit('12', 2)  c = checkDigit(absent)  d = orNone(absent)"),
                        folder)
                .run(Inputs.NONE, Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("{\"a\":0,\"b\":6,\"d\":\"none\"}\n");
        assertThat(morphema.check("x", String.format(target, "a = checkDigit()  b = checkDigt('1')"), folder)
                        .problems())
                .extracting(p -> p.code())
                .containsExactly(Code.ARGUMENTS, Code.UNKNOWN_FUNCTION);
        assertThat(failure(() -> morphema.load("x", String.format(target, "a = broken()"), folder)
                        .run(Inputs.NONE, Outputs.NONE)))
                .isEqualTo(Code.FAILED);
        for (String wrong : List.of(
                "upper(x: text): text",
                "f(x: txt): text",
                "f x",
                "1f(x: text): text",
                "(x: text): text",
                "f(x: text)",
                "f(x text): text",
                "f(: text): text",
                "f(x?...: text): text",
                "f(x: text): nought",
                "f(a...: text, b: text): text",
                "f(a?: text, b: text): text",
                "f(x: many): text")) {
            assertThatThrownBy(() -> Morphema.builder().function(wrong, a -> a.get(0)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    @DisplayName("an input that cannot be read to its end is told as such, streamed or kept")
    void brokenStreams() {
        for (String use : List.of("r.n", "count(m)")) {
            Mapping mapping = Language.load("source m: csv\ntarget o: json { for r in m => " + use + " }");
            InputStream broken = new SequenceInputStream(
                    new ByteArrayInputStream("n\n1\n".getBytes(StandardCharsets.UTF_8)), new InputStream() {
                        @Override
                        public int read() throws IOException {
                            throw new IOException("the line is cut");
                        }
                    });
            assertThatThrownBy(() -> mapping.run(Inputs.stream("m", broken), Outputs.NONE))
                    .isInstanceOfSatisfying(ProblemException.class, e -> {
                        assertThat(e.problem().code()).isEqualTo(Code.NOT_READABLE);
                        assertThat(e.problem().message()).contains("source m").contains("the line is cut");
                        assertThat(e.problem().rule()).isNull();
                    });
        }
    }

    @Test
    @DisplayName("in a document of one long line the place of a bad value is shown, if the value stands there once")
    void oneLongLine() {
        String mapping = "source s: json { kg: number }\ntarget o: csv { for r in s { kg = r.kg } }";
        String many = "{\"kg\":10},".repeat(100);
        InputLocation once = Objects.requireNonNull(
                Language.failure(mapping, Inputs.text("s", "[" + many + "{\"kg\":\"12x\"}," + many + "{}]"))
                        .input());
        assertThat(once.column()).isEqualTo(1_009);
        assertThat(once.text()).startsWith("…").contains("12x").endsWith("…");
        assertThat(once.text().substring(once.shownColumn() - 1)).startsWith("12x");
        InputLocation twice = Objects.requireNonNull(
                Language.failure(mapping, Inputs.text("s", "[" + many + "{\"kg\":\"12x\"},{\"ship\":\"12x\"}]"))
                        .input());
        assertThat(twice.column()).isZero();
    }

    @Test
    @DisplayName("no output takes the place of a file that the mapping was made of")
    void filesOfTheMapping() throws IOException {
        Files.writeString(folder.resolve("kinds.csv"), "code,text\nBX,box\n");
        Files.writeString(folder.resolve("rows.csv"), "kind\nBX\n");
        Files.writeString(
                folder.resolve("common.morphema"),
                "morphema 1\ndefine named(x) = kinds[x].text\n" + "table kinds: csv(\"kinds.csv\") key code\n");
        Path file = Files.writeString(
                folder.resolve("main.morphema"),
                "morphema 1\nuse \"common.morphema\"\n"
                        + "source s: csv(sample = \"rows.csv\")\ntarget o: csv { for r in s { kind = named(r.kind) } }\n");
        Mapping mapping = Morphema.standard().load(file);
        for (String name : List.of("kinds.csv", "rows.csv", "common.morphema", "main.morphema")) {
            Path place = folder.resolve(name);
            String before = Files.readString(place);
            assertThatThrownBy(() -> mapping.run(Inputs.text("s", "kind\nBX\n"), Outputs.file("o", place)))
                    .isInstanceOf(ProblemException.class)
                    .hasMessageContaining("overwrite a file that the mapping reads");
            assertThat(place).hasContent(before);
        }
        mapping.run(Inputs.text("s", "kind\nBX\n"), Outputs.file("o", folder.resolve("o.csv")));
        assertThat(folder.resolve("o.csv")).hasContent("kind\nbox\n");
    }
}
