package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/**
 * What is the same all through a run is gone through once, and then found by keys or kept: with the
 * same outcome, and what goes wrong goes wrong as it would.
 */
class InvariantProperties {
    private static final String SOURCES = "source rows: memory { t: number }\nsource ships: memory { t: number }\n";

    /** What both sources have. */
    private record Inputs(String[] rows, String[] ships) {
        @Override
        public String toString() {
            return List.of(rows) + " " + List.of(ships);
        }
    }

    @Provide
    Gen<Inputs> inputs() {
        Gen<String> keys = Gens.of("a", "b", "1", "1.0", "2", "");
        Gen<List<String>> some = keys.list().ofMaxSize(6);
        return Gens.combine(some, some, keys.list().ofMinSize(1).ofMaxSize(3))
                .as((rows, ships, typed) -> new Inputs(rows(rows, typed), rows(ships, typed)));
    }

    /**
     * What may be the key of a value: mostly a field, sometimes of another kind now and then, or
     * none.
     */
    @Provide
    Gen<String> expressions() {
        return Gens.of(
                "%s.k",
                "upper(%s.k)",
                "%s.t",
                "number(%s.k)",
                "(if %s.k == \"a\" then 1 else \"1\")",
                "(%s.k ?? null)",
                "[%s.k]",
                "contains(%1$s.k, \"1\")",
                "\"x{%s.k}\"");
    }

    private static String[] rows(List<String> keys, List<String> typed) {
        List<String> rows = new ArrayList<>(List.of("k,t,v"));
        for (int i = 0; i < keys.size(); i++) {
            rows.add(keys.get(i) + "," + typed.get(i % typed.size()) + "," + i);
        }
        return rows.toArray(String[]::new);
    }

    /**
     * What was written, or what went wrong and where; expressions that no mapping can have give
     * null.
     */
    private static @Nullable String outcome(String mapping, Inputs inputs) {
        Rehearsal rehearsal;
        try {
            rehearsal = new Rehearsal(SOURCES + mapping);
        } catch (ProblemException e) {
            return null;
        }
        try {
            return rehearsal
                    .rows("rows", inputs.rows())
                    .rows("ships", inputs.ships())
                    .written();
        } catch (ProblemException e) {
            Problem problem = e.problem();
            return problem.code() + " " + problem.message() + " " + problem.value() + " " + problem.input();
        }
    }

    @Property(tries = 1_000)
    void asWithoutKeys(
            @ForAll @From("inputs") Inputs inputs,
            @ForAll @From("expressions") String key,
            @ForAll @From("expressions") String asked,
            @ForAll boolean turned,
            @ForAll @From("furtherConditions") String rest) {
        String left = (turned ? asked : key).formatted(turned ? "r" : "s");
        String right = (turned ? key : asked).formatted(turned ? "s" : "r");
        for (String loop : List.of(
                "list for r in rows for s in ships where %s => \"{r.v} {s.v}\"",
                "list for r in rows { found for s in ships where %s => s.v }",
                "list for r in rows => count(s for s in ships where %s)",
                "list for r in rows => count(s for s in (for t in ships where t.v != \"1\") where %s)",
                "list for r in rows => first(for s in ships where %s).v ?? \"none\"")) {
            String byKey = "target o: events { " + loop.formatted(left + " == " + right + rest) + " }";
            String one = "target o: events { " + loop.formatted("not (" + left + " != " + right + ")" + rest) + " }";
            assertThat(outcome(byKey, inputs)).isEqualTo(outcome(one, inputs));
        }
    }

    @Property(tries = 500)
    void inIsAsWithoutKeys(
            @ForAll @From("inputs") Inputs inputs,
            @ForAll @From("expressions") String item,
            @ForAll @From("fields") String field,
            @ForAll boolean not) {
        String asked = item.formatted("r") + (not ? " not in " : " in ");
        // A let of the loop could be another value in each turn, as far as is known.
        String one = "let all = ships where " + asked + field.formatted("all");
        for (String mapping : List.of("list for r in rows %s => r.v", "count = count(r for r in rows %s)")) {
            String byKey =
                    "target o: events { " + mapping.formatted("where " + asked + field.formatted("ships")) + " }";
            assertThat(outcome(byKey, inputs))
                    .isEqualTo(outcome("target o: events { " + mapping.formatted(one) + " }", inputs));
        }
    }

    @Provide
    Gen<String> totals() {
        return Gens.of(
                "sum(%s.t)",
                "count(%s)",
                "count(x for x in %s where x.k == \"a\")",
                "count(x for x in %s where x.k == r.k)",
                "join(sorted(%s.k), \"+\")",
                "max(number(x.k) for x in %s)",
                "first(for x in %s sort by x.k desc take 2).v",
                "join([x.v for x in %s distinct by x.k], \"+\")",
                "count(y for x in %s let z = x.k for y in [z, x.t] where exists(y))",
                "min(n for x in %1$s where x.k == \"b\" for n in [number(x.v), count(%1$s)])");
    }

    @Property(tries = 500)
    void totalsAreAsCalculatedEachTime(@ForAll @From("inputs") Inputs inputs, @ForAll @From("totals") String total) {
        for (String loop : List.of(
                "list for r in rows %s => %s",
                "list for r in rows %s => (if r.k == \"a\" then %s else 0)",
                "list for r in rows %s where %s != r.v => r.v")) {
            String once = "target o: events { " + loop.formatted("", total.formatted("ships")) + " }";
            String each = "target o: events { " + loop.formatted("let all = ships", total.formatted("all")) + " }";
            assertThat(outcome(once, inputs)).isNotNull().isEqualTo(outcome(each, inputs));
        }
    }

    @Provide
    Gen<String> furtherConditions() {
        return Gens.of(
                "",
                " and s.v != r.v",
                " and s.t == r.t",
                " and s.v == r.t",
                " and (if s.v == \"1\" then 1 else s.v) == r.v",
                " and r.k == s.k and s.v != r.v",
                " and s.k == \"1\" and number(s.k) == r.t",
                " and (s.t == r.t or s.v == r.v)");
    }

    @Provide
    Gen<String> fields() {
        return Gens.of("%s.k", "%s.t", "[%s.k, 1, null]", "[\"a\", \"b\", %s]", "%s");
    }

    @Test
    void thePlanTellsByWhatValuesAreFound() {
        Program program = Rehearsal.compile(
                SOURCES
                        + "target o: events { list for r in rows for s in ships where r.v > 1 and s.k == r.k => s.v }\n"
                        + "target p: events { list for r in rows for s in ships where s.k == r.k and r.v > 1 => s.v }\n"
                        + "target q: events { list for r in rows for s in ships where s.k == s.v => s.v }\n"
                        + "target t: events { list for r in rows for s in ships where r.k == s.k and s.v == r.v and s.t > 1 => s.v }");
        assertThat(program.plan().toString().lines().filter(line -> line.contains("for each of ships")))
                .containsExactly(
                        "  for each of ships",
                        "  for each of ships, found by s.k",
                        "  for each of ships",
                        "  for each of ships, found by s.k, s.v");
    }
}
