package dev.morphema;

import static dev.morphema.Language.failure;
import static dev.morphema.Language.run;
import static dev.morphema.Language.value;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Paths, one or many, loops, groups and tables. */
class PathsAndLoopsTest {
    private static final String CALLS = """
            {"calls": [
              {"id": "A", "berth": {"code": "B1"}, "lines": [{"qty": 2, "tags": ["x", "y"]}, {"qty": 3}]},
              {"id": "B", "lines": [{"qty": 5, "tags": ["z"]}]},
              {"id": "C", "lines": []}
            ], "one": {"qty": 7}, "odd key": 1, "empty": null}""";

    private static final String ROWS = """
            ship,bill,kg
            Nordlys,1,10
            Sula,7,5
            Nordlys,2,20
            Nordlys,1,30
            """;

    private static String rows(String body) {
        return run("source m: csv { kg: number }\ntarget o: json(indent = 0) { " + body + " }", Inputs.text("m", ROWS));
    }

    @Test
    @DisplayName("a step over many maps over all of them, a list and a single one are walked alike")
    void stepsOverMany() {
        assertThat(value("[d.calls.id]", CALLS)).isEqualTo("[\"A\",\"B\",\"C\"]");
        assertThat(value("[d.calls.lines.tags]", CALLS)).isEqualTo("[\"x\",\"y\",\"z\"]");
        assertThat(value("sum(d.calls.lines.qty)", CALLS)).isEqualTo("10");
        assertThat(value("sum(d.one.qty)", CALLS)).isEqualTo("7");
        assertThat(value("d.'odd key'", CALLS)).isEqualTo("1");
        assertThat(value("d['odd key']", CALLS)).isEqualTo("1");
        assertThat(value("d.empty", CALLS)).isEqualTo("null");
        assertThat(value("d.nothing.here ?? absent", CALLS)).isEqualTo("absent");
        assertThat(value("first(d.calls).berth.code", CALLS)).isEqualTo("\"B1\"");
        assertThat(value("[d..qty]", CALLS)).isEqualTo("[2,3,5,7]");
        assertThat(value("d.one", CALLS)).isEqualTo("{\"qty\":7}");
    }

    @Test
    @DisplayName("many where one is wanted is an error that says how many")
    void manyWhereOneIsWanted() {
        Problem problem = failure("source d: json\ntarget o: json { v = d.calls.id }", Inputs.text("d", CALLS));
        assertThat(problem.code()).isEqualTo(Code.MANY);
        assertThat(problem.message()).contains("found 3");
        assertThat(problem.help()).contains("first(");
    }

    @Test
    @DisplayName("where, let, numbered, sort, distinct and take do what they say, in the order written")
    void clauses() {
        assertThat(rows("a for r in m where r.kg > 5 let half = r.kg / 2 numbered n => \"{n} {half}\""))
                .isEqualTo("{\"a\":[\"1 5\",\"2 10\",\"3 15\"]}\n");
        assertThat(rows("a for r in m sort by r.ship desc, r.kg desc => r.kg")).isEqualTo("{\"a\":[5,30,20,10]}\n");
        assertThat(rows("a for r in m distinct by r.bill => r.kg")).isEqualTo("{\"a\":[10,5,20]}\n");
        assertThat(rows("a for r in m take 2 => r.kg")).isEqualTo("{\"a\":[10,5]}\n");
        assertThat(rows("a for r in m numbered n by r.ship => n")).isEqualTo("{\"a\":[1,1,2,3]}\n");
        assertThat(rows("a for r in m take 2 for q in m where q.ship == r.ship => q.kg"))
                .isEqualTo("{\"a\":[10,20,30,5]}\n");
        assertThat(rows("a for r in m where false => 1")).isEqualTo("{\"a\":[]}\n");
    }

    @Test
    @DisplayName("groups come in order of first appearance and nest")
    void groups() {
        assertThat(rows("""
                        ships for r in m group by r.ship as rs {
                          ship = ship
                          kg = sum(rs.kg)
                          bills for r in rs group by b = r.bill as same => "{b}: {count(same)}"
                        }"""))
                .isEqualTo("{\"ships\":[{\"ship\":\"Nordlys\",\"kg\":60,\"bills\":[\"1: 2\",\"2: 1\"]},"
                        + "{\"ship\":\"Sula\",\"kg\":5,\"bills\":[\"7: 1\"]}]}\n");
        assertThat(rows("a for r in m group runs by r.ship as rs => count(rs)")).isEqualTo("{\"a\":[1,1,2]}\n");
        assertThat(rows("a for r in m group from r.bill == \"1\" as rs => [rs.kg]"))
                .isEqualTo("{\"a\":[[10,5,20],[30]]}\n");
        assertThat(rows("a for r in m let t = r.kg / 10 group by r.ship as rs => sum(rs.t)"))
                .isEqualTo("{\"a\":[6,0.5]}\n");
        assertThat(rows("a for r in m group by r.ship as rs where count(rs) > 1 => ship"))
                .isEqualTo("{\"a\":[\"Nordlys\"]}\n");
        assertThat(rows("a for r in m group by r.ship as rs sort by sum(rs.kg) => ship"))
                .isEqualTo("{\"a\":[\"Sula\",\"Nordlys\"]}\n");
    }

    @Test
    @DisplayName("absent, null and empty text are keys of their own")
    void keysOfNothing() {
        String json = "[{\"k\": null}, {}, {\"k\": \"\"}, {\"k\": 1}, {\"k\": \"1\"}, {\"k\": 1.0}, {}]";
        String out = run(
                "source d: json\ntarget o: json(indent = 0) { for r in d group by r.k as rs => count(rs) }",
                Inputs.text("d", json));
        assertThat(out).isEqualTo("[1,2,1,2,1]\n");
    }

    @Test
    @DisplayName("a loop with optional keeps what has no inner item")
    void optionalLoops() {
        assertThat(value("[\"{c.id}{l.qty}\" for c in d.calls for l in c.lines]", CALLS))
                .isEqualTo("[\"A2\",\"A3\",\"B5\"]");
        assertThat(value("[\"{c.id}{l.qty}\" for c in d.calls for optional l in c.lines]", CALLS))
                .isEqualTo("[\"A2\",\"A3\",\"B5\",\"C\"]");
    }

    @Test
    @DisplayName("members of a group with several loop names are records of them")
    void membersOfSeveralNames() {
        assertThat(value(
                        "[\"{k} {join(pairs.c.id, \"\")} {sum(pairs.l.qty)}\" for c in d.calls for l in c.lines"
                                + " group by k = l.qty > 2 as pairs]",
                        CALLS))
                .isEqualTo("[\"false A 2\",\"true AB 8\"]");
    }

    @Test
    @DisplayName("keyed by makes an object; a repeated key is an error with its value")
    void keyedBy() {
        assertThat(rows("a for r in m group by r.ship as rs keyed by ship => count(rs)"))
                .isEqualTo("{\"a\":{\"Nordlys\":3,\"Sula\":1}}\n");
        assertThat(rows("for r in m group by r.ship as rs keyed by ship { n = count(rs) }"))
                .isEqualTo("{\"Nordlys\":{\"n\":3},\"Sula\":{\"n\":1}}\n");
        Problem problem =
                failure("source m: csv\ntarget o: json { a for r in m keyed by r.ship => 1 }", Inputs.text("m", ROWS));
        assertThat(problem.code()).isEqualTo(Code.DUPLICATE_KEY);
        assertThat(problem.value()).isEqualTo("Nordlys");
        assertThat(problem.input()).isNotNull();
        assertThat(problem.input().line()).isEqualTo(4);
    }

    @Test
    @DisplayName("tables: inline, over a sequence, with many rows, with ranges")
    void tables() {
        String mapping = """
                source m: csv { kg: number }
                table kinds { BX = "box"  "odd key" = "odd"  7 = "seven" }
                table heavy for r in m where r.kg >= 10 key r.ship many
                table steps for r in m key r.ship range r.kg to r.kg + 10
                target o: json(indent = 0) {
                  a = kinds["BX"]
                  b = kinds["odd key"]
                  c = kinds[7] ?? "none"
                  d = kinds["ZZ"] ?? "none"
                  e = [heavy["Nordlys"].kg]
                  f = count(heavy["Sula"])
                  g = steps["Nordlys", 25].bill
                  h = steps["Sula", 15].bill ?? "none"
                  i = kinds[absent] ?? "asked for nothing"
                }
                """;
        assertThat(run(mapping, Inputs.text("m", ROWS)))
                .isEqualTo("{\"a\":\"box\",\"b\":\"odd\",\"c\":\"seven\",\"d\":\"none\",\"e\":[10,20,30],\"f\":0,"
                        + "\"g\":\"2\",\"h\":\"none\",\"i\":\"asked for nothing\"}\n");
    }

    @Test
    @DisplayName("a key that comes twice in a table names both lines")
    void duplicateTableKey() {
        Problem problem = failure(
                "source m: csv\ntable t for r in m key r.ship\ntarget o: json { a = t[\"x\"] }",
                Inputs.text("m", ROWS));
        assertThat(problem.code()).isEqualTo(Code.DUPLICATE_KEY);
        assertThat(problem.message()).contains("line 2").contains("line 4");
    }

    @Test
    @DisplayName("a define may call itself, to a depth")
    void definesCallThemselves() {
        assertThat(run(
                        "define fact(n) = if n <= 1 then 1 else n * fact(n - 1)\n"
                                + "target o: json(indent = 0) { a = fact(20) }",
                        Inputs.NONE))
                .isEqualTo("{\"a\":2432902008176640000}\n");
        assertThat(failure("define f(n) = f(n + 1)\ntarget o: json { a = f(1) }", Inputs.NONE)
                        .code())
                .isEqualTo(Code.LIMIT);
    }

    @Test
    @DisplayName("sorting puts absent and null last either way, and refuses mixed kinds")
    void sorting() {
        String json = "[{\"k\": 2}, {}, {\"k\": 1}, {\"k\": null}]";
        assertThat(value("[r.k ?? \"-\" for r in d sort by r.k]", json)).isEqualTo("[1,2,\"-\",\"-\"]");
        assertThat(value("[r.k ?? \"-\" for r in d sort by r.k desc]", json)).isEqualTo("[2,1,\"-\",\"-\"]");
        assertThat(failure(
                                "source d: json\ntarget o: json { v = [r.k for r in d sort by r.k] }",
                                Inputs.text("d", "[{\"k\": 2}, {\"k\": \"x\"}]"))
                        .code())
                .isEqualTo(Code.KIND);
    }
}
