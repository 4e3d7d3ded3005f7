package dev.morphema;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import org.assertj.core.api.Assertions;

/** Runs small mappings from text to text, through the public API. */
final class Language {
    private Language() {}

    /** {@return what a mapping with one target writes} */
    static String run(String mapping, Inputs inputs) {
        return run(mapping, inputs, RunOptions.DEFAULT);
    }

    static String run(String mapping, Inputs inputs, RunOptions options) {
        return run(load(mapping), inputs, options);
    }

    private static String run(Mapping loaded, Inputs inputs, RunOptions options) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        loaded.run(inputs, Outputs.stream(loaded.targets().get(0), out), options);
        return out.toString(StandardCharsets.UTF_8);
    }

    /**
     * {@return what a mapping with one target writes, or what is told of the problem that the run
     * ends with}; a mapping that is wrong is none of that, and fails.
     */
    static String outcome(String mapping, Inputs inputs, RunOptions options, Function<ProblemException, String> told) {
        Mapping loaded = load(mapping);
        try {
            return run(loaded, inputs, options);
        } catch (ProblemException e) {
            return told.apply(e);
        }
    }

    static Mapping load(String mapping) {
        return Morphema.standard().load("test.morphema", "morphema 1\n" + mapping, Path.of("."));
    }

    /**
     * {@return the value of an expression, as compact JSON; sources d (JSON) and c (CSV) are at
     * hand}
     */
    static String value(String expression, String json) {
        String out =
                run("source d: json\ntarget o: json(indent = 0) { v = " + expression + " }", Inputs.text("d", json));
        return out.equals("{}\n") ? "absent" : out.replaceAll("^\\{\"v\":|\\}\\n$", "");
    }

    /** {@return the value of an expression without any input} */
    static String value(String expression) {
        String out = run("target o: json(indent = 0) { v = " + expression + " }", Inputs.NONE);
        return out.equals("{}\n") ? "absent" : out.replaceAll("^\\{\"v\":|\\}\\n$", "");
    }

    /**
     * {@return the problems that checking a mapping finds; the first line of the text is line 2}
     */
    static List<Problem> check(String mapping) {
        return Morphema.standard()
                .check("test.morphema", "morphema 1\n" + mapping, Path.of("."))
                .problems();
    }

    /** {@return the one problem that a run ends with} */
    static Problem failure(String mapping, Inputs inputs) {
        Throwable thrown = Assertions.catchThrowable(() -> run(mapping, inputs));
        Assertions.assertThat(thrown).isInstanceOf(ProblemException.class);
        return ((ProblemException) thrown).problem();
    }

    /** {@return the problem that evaluating an expression ends with} */
    static Problem failure(String expression) {
        return failure("target o: json { v = " + expression + " }", Inputs.NONE);
    }

    /** {@return "line:column code" of each problem} */
    static List<String> places(String mapping) {
        return check(mapping).stream().map(Language::place).toList();
    }

    static String place(Problem problem) {
        Code code = problem.code();
        return problem.rule() == null
                ? code.printed()
                : problem.rule().line() + ":" + problem.rule().column() + " " + code.printed();
    }
}
