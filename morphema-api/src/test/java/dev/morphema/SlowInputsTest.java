package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.ProblemException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Looks for inputs and mappings that take far longer than others of their size: pieces of a good
 * one are repeated and changed at random. Only in the profile {@code fuzz}, as it measures time.
 */
@EnabledIfSystemProperty(named = "fuzz", matches = "true")
class SlowInputsTest {
    private static final int TRIES = 400;
    private static final int LEAST = 10_000;
    private static final int MOST = 200_000;
    private static final int TIMES_MEDIAN = 100;

    /** What is read, and a good one of its kind. */
    enum Kind {
        CSV("k,n,t\na,1,\"x, y\"\nb,2,\"say \"\"no\"\"\"\nc,,\n", reading("csv")),
        JSON(
                "{\"a\": [1, {\"b\": \"x\\u00e4\\n\"}, null, -1.5e3], \"c\": {\"d\": [true, false, \"\"]}}",
                reading("json")),
        JSON_LINES("{\"a\": 1}\n{\"a\": [1, 2], \"b\": {\"c\": \"x\"}}\n[]\n", reading("jsonl")),
        XML(
                "<?xml version=\"1.0\"?><!DOCTYPE r [<!ENTITY e \"x&#65;\">]><r xmlns:p=\"u\"><p:a k=\"1\" p:l='&lt;'>t&e;</p:a>"
                        + "<!-- c --><b><![CDATA[x]]></b><c/></r>",
                reading("xml")),
        MAPPING("""
                source s: csv(columns = ["a"]) { a: number }
                table t { x = "1" }
                define f(a, b) = if a > 1 then [a, b, -a * (b + 1)] else "text {a} {{" ?? null
                target o: json { for x in s where x.a != 1 sort by x.a desc { v = f(x.a, 2) w { y = t[x.a].z } } }
                """, text -> Morphema.standard().check("m", "morphema 1\n" + text, Path.of("")));

        private final String good;
        private final Consumer<String> use;

        Kind(String good, Consumer<String> use) {
            this.good = good;
            this.use = use;
        }

        private static Consumer<String> reading(String format) {
            boolean sequence = !format.equals("xml") && !format.equals("json");
            Mapping mapping = Language.load(
                    "source s: " + format + "\ntarget o: json " + (sequence ? "{ for x in s { copy x } }" : "= s"));
            return text -> {
                try {
                    mapping.messages("s", "o").transform(text.getBytes(StandardCharsets.UTF_8));
                } catch (ProblemException e) {
                    // what is wrong may be told
                }
            };
        }
    }

    private record Measured(double nanosOfByte, String text) {}

    @ParameterizedTest
    @EnumSource
    @DisplayName("no input of more than 10 kB takes a hundred times as long as others of its size")
    void slow(Kind kind) {
        Random random = new Random(kind.ordinal());
        for (int i = 0; i < TRIES; i++) {
            kind.use.accept(stretched(kind.good, random));
        }
        List<Measured> all = new ArrayList<>();
        for (int i = 0; i < TRIES; i++) {
            String text = stretched(kind.good, random);
            all.add(new Measured(Math.min(nanos(kind, text), nanos(kind, text)) / (double) text.length(), text));
        }
        all.sort(Comparator.comparingDouble(Measured::nanosOfByte));
        Measured slowest = all.get(all.size() - 1);
        double median = all.get(all.size() / 2).nanosOfByte();
        assertThat(slowest.nanosOfByte())
                .as(slowest.text().substring(0, 500))
                .isLessThan(TIMES_MEDIAN * Math.max(median, 20));
    }

    private static long nanos(Kind kind, String text) {
        long start = System.nanoTime();
        kind.use.accept(text);
        return System.nanoTime() - start;
    }

    /**
     * {@return a text of which pieces come again and again, some inside of others, with some
     * characters changed}
     */
    private static String stretched(String good, Random random) {
        StringBuilder text = new StringBuilder(good);
        while (text.length() < LEAST) {
            int from = random.nextInt(text.length());
            int length = 1 + random.nextInt(Math.min(40, text.length() - from));
            String piece = text.substring(from, from + length);
            int times = Math.min(1 + random.nextInt(3_000), MOST / piece.length());
            text.insert(from, piece.repeat(times));
        }
        int changes = random.nextInt(4);
        char[] marks = "\"'<>&{}[](),;:=\n\\ a0-/*".toCharArray();
        for (int i = 0; i < changes; i++) {
            text.setCharAt(random.nextInt(text.length()), marks[random.nextInt(marks.length)]);
        }
        return text.length() > MOST ? text.substring(0, MOST) : text.toString();
    }
}
