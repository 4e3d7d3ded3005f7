package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Nothing of a record that is rejected stays: what is written is what would be without it. */
class FailureUnitsProperties {
    private static final String SOURCES = "source rows: memory { n: number }\nsource ships: memory\n";

    @Provide
    Gen<String> targets() {
        return Gens.of(
                "target o: events { list for r in rows { k = r.k  n = r.n } }",
                "target o: events { list for r in rows where r.n != 2 numbered i by r.k => \"{i} {r.k}\" }",
                "target o: events { list for r in rows distinct by r.k take 3 => r.k }",
                "target o: events { list for r in rows sort by r.n desc => r.n }",
                "target o: events { list for r in rows sort by r.n take 2 => r.n }",
                "target o: events { list for r in rows group by r.k as rs { k? = k  n = sum(rs.n)  c = count(rs) } }",
                "target o: events { list for r in rows group runs by r.k as rs { k? = k  all for q in rs => q.n  n = sum(rs.n) } }",
                "target o: events { list for r in rows group runs by r.k as rs => join(rs.l, \"+\") }",
                "target o: events { list for r in rows group from r.k == \"a\" as rs => count(rs) }",
                "target o: events { list for r in rows group by r.k as rs { k? = k  two for q in rs sort by q.n take 2 => q.n"
                        + "  in2 for q in rs group by l = q.l as qs => count(qs) } }",
                "target o: events { list for r in rows for s in ships where s.k == r.k => \"{r.n} {s.v}\" }",
                "target o: events { list for r in rows => r.n  more for s in ships => s.v  all = count(ships) }",
                "table t for s in ships key s.k many\ntarget o: events { list for r in rows => count(t[r.k]) }",
                "target o: events { list for r in rows => r.n }\n"
                        + "target p: events { list for r in rows group by r.k as rs => sum(rs.n) }\n"
                        + "target q: events { list for r in rows group runs by r.l as rs => count(rs) }",
                "target o: events for r in rows into \"{r.k}-{r.n}\" { n = r.n }");
    }

    @Provide
    Gen<List<String>> lines() {
        Gen<String> keys = Gens.of("a", "b", "c");
        return Gens.combine(keys, Gens.of("1", "2", "2.5", "-1"), keys)
                .as((k, n, l) -> k + "," + n + "," + l)
                .list()
                .ofMaxSize(12);
    }

    private static String[] table(String header, List<String> lines) {
        List<String> all = new ArrayList<>(List.of(header));
        all.addAll(lines);
        return all.toArray(String[]::new);
    }

    private static Rehearsal of(String mapping, List<String> rows, List<String> ships) {
        return new Rehearsal(SOURCES + mapping)
                .rows("rows", table("k,n,l", rows))
                .rows("ships", table("k,v,l", ships));
    }

    private static boolean isThird(@Nullable Value record) {
        return record instanceof RecordValue read
                && read.origin() != null
                && read.origin().record() % 3 == 0;
    }

    private static List<String> withoutEachThird(List<String> lines) {
        return IntStream.range(0, lines.size())
                .filter(i -> (i + 1) % 3 != 0)
                .mapToObj(lines::get)
                .toList();
    }

    @Property(tries = 2_000)
    void asWithoutWhatIsRejected(
            @ForAll @From("targets") String mapping,
            @ForAll @From("lines") List<String> rows,
            @ForAll @From("lines") List<String> ships,
            @ForAll boolean writersGoBack,
            @ForAll boolean leaving) {
        Rehearsal rejecting = of(mapping, rows, ships).rejecting((record, failure) -> isThird(record), writersGoBack);
        // A source that is kept as a whole is no sequence of units.
        boolean whole = mapping.contains("for s in ships where");
        assertThat((leaving ? rejecting.leaving() : rejecting).documents())
                .isEqualTo(of(mapping, withoutEachThird(rows), whole ? ships : withoutEachThird(ships))
                        .documents());
    }

    @Test
    void aRecordThatFailsIsLeftOutOfAllTargets() {
        String mapping = "target o: events { list for r in rows => r.l }\n"
                + "target p: events { list for r in rows => r.n + 1 }\n"
                + "target q: events { list for r in rows group by r.k as rs => count(rs) }";
        List<String> rows = List.of("a,1,x", "a,two,y", "b,3,z", "a,4,u");
        List<ProblemException> failures = new ArrayList<>();
        Rejects failing = (record, failure) -> failure != null && failures.add(failure);
        List<Run.Outcome> outcomes = new ArrayList<>();
        for (boolean back : new boolean[] {true, false}) {
            assertThat(of(mapping, rows, List.of()).rejecting(failing, back).documents())
                    .isEqualTo(of(mapping, List.of("a,1,x", "b,3,z", "a,4,u"), List.of())
                            .documents());
        }
        assertThat(failures)
                .hasSize(2)
                .allSatisfy(failure ->
                        assertThat(failure.problem().input().record()).isEqualTo(2));
        of(mapping, rows, List.of()).rejecting(failing, true).run(outcomes);
        assertThat(outcomes.get(0).read()).containsExactly(4L, 0L);
        assertThat(outcomes.get(0).written()).containsExactly(3L, 3L, 2L);
    }

    @Test
    void aGroupThatFailsIsLeftOut() {
        String mapping = "target o: events { list for r in rows group runs by r.k as rs { k = k  n = sum(rs.n) } }";
        List<String> rows = List.of("a,1,x", "b,two,y", "b,3,z", "c,4,u");
        for (String loop : List.of(mapping, mapping.replace("runs by", "by"))) {
            assertThat(of(loop, rows, List.of())
                            .rejecting((record, failure) -> failure != null, true)
                            .documents())
                    .isEqualTo(of(loop, List.of("a,1,x", "c,4,u"), List.of()).documents());
        }
    }
}
