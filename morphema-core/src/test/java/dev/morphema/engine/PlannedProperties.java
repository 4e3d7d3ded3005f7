package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.check.CheckedMapping;
import dev.morphema.plan.Plan;
import dev.morphema.plan.Planner;
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

/**
 * What the rules make of a plan comes to the same as the mapping as it is written, or goes wrong
 * alike.
 */
class PlannedProperties {
    private static final String DECLARED = """
            source rows: memory { n: number }
            source ships: memory
            define total(rs) = sum(rs.n)
            define most(all) = first(for q in all group by l = q.l as same sort by count(same) desc, l take 1)
            define heaviest(rs) = first(for q in rs sort by q.n desc)
            define net(r, off) = r.n - off
            define twice(x) = x + x
            define party(r) = { name = r.l  let m = twice(r.n)  n = m  again = .n }
            define shipOf(r) = first(for s in ships where s.k == r.k)
            define same(a, b) = a.k == b.k
            define sure(r) = r.l ?? fail("no l")
            """;

    @Provide
    Gen<String> bodies() {
        return Gens.of(
                "list for r in rows where r.n > 2 sort by r.n take 3 => r.k",
                "list for r in rows sort by r.n take count(ships) => r.k",
                "list for r in rows group by r.k as rs { k = k  n = total(rs)  m = max(rs.n)  one = heaviest(rs).l  two = most(rs).l }",
                "list for r in rows group by k = r.k as rs { k = k  often = first(for q in rs group by l = q.l as same"
                        + " sort by count(same) desc).l  c = max(count(same) for q in rs group by l = q.l as same) }",
                "list for r in rows group runs by k = r.k as rs { k = k  inner for q in rs group by l = q.l as qs"
                        + " { l = l  all for m in qs => m.n  n = total(qs) }  n = total(rs) }",
                "list for r in rows group by k = r.k as rs { let ns = rs.n  let all = [ns]  n = sum(ns)  two for q in rs"
                        + " sort by q.n desc take 2 => net(q, 1) }",
                "all = count(rows)  list for r in rows { n = net(r, sum(ships.v))  p = party(r) }",
                "list for r in rows { s = shipOf(r).v  t = count(s for s in ships where same(s, r)) }",
                "list for r in rows where r.k in ships.k { n = twice(net(r, max(ships.v) ?? 1)) }",
                "list for r in rows for s in ships where s.k == r.k and s.v == r.n => twice(s.v)",
                "list for r in rows => sure(r)",
                "list for r in rows => r.n  ships for s in ships => s.v  again for r in rows sort by r.n => r.k",
                "list for r in rows numbered i by r.k let d = twice(r.n) group by odd = i % 2 as rs"
                        + " { odd = odd  ds = join(rs.d, \"+\")  n = count(rs) }",
                "n = total(rows)  m = heaviest(rows).k  list for r in rows distinct by r.k => r.l");
    }

    @Provide
    Gen<List<String>> lines() {
        Gen<String> keys = Gens.of("a", "b", "c", "");
        Gen<String> numbers = Gens.of("1", "2", "2.5", "", "-1", "x");
        return Gens.combine(keys, numbers, keys)
                .as((k, n, l) -> k + "," + n + "," + l)
                .list()
                .ofMaxSize(8);
    }

    private static String outcome(Plan plan, List<String> rows, List<String> ships, long budget) {
        try {
            return new Rehearsal(Compiler.compile(plan))
                    .leaving()
                    .rows("rows", table("k,n,l", rows))
                    .rows("ships", table("k,v,l", ships))
                    .budget(budget)
                    .written();
        } catch (ProblemException e) {
            // The rule may be the argument of a call, in place of its name.
            Problem problem = e.problem();
            return problem.code() + " " + problem.message() + " " + problem.value();
        }
    }

    private static String[] table(String header, List<String> lines) {
        List<String> all = new ArrayList<>(List.of(header));
        all.addAll(lines);
        return all.toArray(String[]::new);
    }

    @Property(tries = 1_500)
    void asWritten(
            @ForAll @From("bodies") String body,
            @ForAll @From("lines") List<String> rows,
            @ForAll @From("lines") List<String> ships,
            @ForAll boolean tight) {
        CheckedMapping mapping = Rehearsal.checked(DECLARED + "target o: events { " + body + " }");
        long budget = tight ? 1 : Long.MAX_VALUE;
        assertThat(outcome(Planner.plan(mapping), rows, ships, budget))
                .isEqualTo(outcome(Planner.asWritten(mapping), rows, ships, budget));
    }
}
