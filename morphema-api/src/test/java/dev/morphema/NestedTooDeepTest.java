package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Whatever is nested too deeply, or repeated too often, in a mapping or in data is a problem, also
 * where the stack is small.
 */
class NestedTooDeepTest {
    private static final int MANY = 3_000;
    private static final long COMMON_STACK = 1 << 20;
    /** As services with many threads have it. */
    private static final long SMALL_STACK = 256 << 10;

    static Stream<Arguments> mappings() {
        return Stream.of(
                rule("a chain of sums", "1" + " + 1".repeat(MANY)),
                rule("a chain of ands", "true" + " and true".repeat(MANY)),
                rule("a chain of defaults", "null" + " ?? null".repeat(MANY)),
                rule("a long path", "s" + ".a".repeat(MANY)),
                rule("nots", "not ".repeat(MANY) + "true"),
                rule("minuses", "- ".repeat(MANY) + "1"),
                rule("parentheses", "(".repeat(MANY) + "1" + ")".repeat(MANY)),
                rule("brackets", "[".repeat(MANY) + "]".repeat(MANY)),
                rule("conditions", "if true then 1 else ".repeat(MANY) + "2"),
                rule("templates", "\"{".repeat(MANY) + "1" + "}\"".repeat(MANY)),
                rule("calls", "upper(".repeat(MANY) + "\"x\"" + ")".repeat(MANY)),
                rule("braces that close nothing", "}".repeat(100_000)),
                Arguments.of("blocks", "target o: json { " + "a { ".repeat(MANY) + "}".repeat(MANY) + " }"));
    }

    private static Arguments rule(String name, String rule) {
        return Arguments.of(name, "source s: json\ntarget o: json { a = " + rule + " }");
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("mappings")
    @DisplayName("a mapping that is nested too deeply is refused, at a place")
    void mapping(String name, String mapping) throws InterruptedException {
        List<Problem> problems = new ArrayList<>();
        onStack(COMMON_STACK, () -> problems.addAll(check(mapping)));
        assertThat(problems).isNotEmpty().hasSizeLessThanOrEqualTo(50);
        assertThat(problems).allSatisfy(problem -> assertThat(problem.rule()).isNotNull());
        problems.clear();
        onStack(SMALL_STACK, () -> problems.addAll(check(mapping)));
        assertThat(problems).isNotEmpty();
    }

    private static List<Problem> check(String mapping) {
        return Morphema.standard()
                .check("deep.morphema", "morphema 1\n" + mapping, Path.of("."))
                .problems();
    }

    static Stream<Arguments> data() {
        String groups = "(".repeat(MANY) + "x" + ")".repeat(MANY);
        String optional = "[".repeat(MANY) + "y" + "]".repeat(MANY);
        String lets = Stream.iterate(1, i -> i <= MANY, i -> i + 1)
                .map(i -> "let x" + i + " = x" + (i - 1) + " + 1\n")
                .reduce("let x0 = 1\n", String::concat);
        return Stream.of(
                Arguments.of("groups of a pattern", "matches(\"x\", s.p)", "", groups),
                Arguments.of("optional parts of a date", "date(\"2026\", s.p)", "", optional),
                Arguments.of("lets that need one another", "x" + MANY, lets, ""));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("data")
    @DisplayName("what is nested too deeply in a run ends it with a problem at the rule")
    void run(String name, String rule, String lets, String value) throws InterruptedException {
        Mapping mapping = Language.load("source s: json\n" + lets + "target o: json { a = " + rule + " }");
        List<Problem> problems = new ArrayList<>();
        onStack(SMALL_STACK, () -> {
            try {
                mapping.run(
                        Inputs.text("s", "{\"p\": \"" + value + "\"}"),
                        Outputs.stream("o", new ByteArrayOutputStream()));
            } catch (ProblemException e) {
                problems.addAll(e.problems());
            }
        });
        assertThat(problems).hasSize(1);
        assertThat(problems.get(0).code()).isIn(Code.LIMIT, Code.OUT_OF_RANGE, Code.NOT_CONVERTIBLE);
        assertThat(problems.get(0).rule()).isNotNull();
    }

    private static void onStack(long size, Runnable work) throws InterruptedException {
        List<Throwable> thrown = new ArrayList<>();
        Thread thread = new Thread(null, work, "work", size);
        thread.setUncaughtExceptionHandler((where, problem) -> thrown.add(problem));
        thread.start();
        thread.join();
        assertThat(thrown).isEmpty();
    }
}
