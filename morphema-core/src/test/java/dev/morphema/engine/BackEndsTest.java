package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.plan.Planner;
import dev.morphema.plan.Term;
import dev.morphema.value.Value;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/**
 * A plan can be compiled by another back end, which sees each rule, and changes nothing of what is
 * written.
 */
class BackEndsTest {
    /** Counts how often each rule is evaluated. */
    private static final class Counting extends UnitCompiler {
        private final Map<String, Integer> counts;

        Counting(Shared shared, Map<String, Integer> counts) {
            super(shared);
            this.counts = counts;
        }

        @Override
        Node rule(Term term) {
            Node plain = node(term);
            return new Node(term.span()) {
                @Override
                Value compute(Frame frame) {
                    counts.merge(written(), 1, Integer::sum);
                    return plain.compute(frame);
                }
            };
        }
    }

    private static final String MAPPING = """
            source rows: memory { n: number }
            source ships: memory
            table names for s in ships key s.k
            define double(x) = x + x
            target o: events {
              list for r in rows where r.n > 1 group by k = r.k as rs {
                let most = max(rs.n)
                k = k
                n = sum(rs.n)
                twice = double(most)
                if most > 2 { name = names[k].name }
              }
            }
            """;

    private static String run(Program program) {
        return new Rehearsal(program)
                .rows("rows", "k,n", "a,1", "a,2", "b,3", "c,2", "b,4")
                .rows("ships", "k,name", "a,Anna", "b,Berta")
                .written();
    }

    @Test
    void countsRules() {
        Map<String, Integer> counts = new TreeMap<>();
        Program counting =
                Compiler.compile(Planner.plan(Rehearsal.checked(MAPPING)), shared -> new Counting(shared, counts));
        assertThat(run(counting)).isEqualTo(run(Rehearsal.compile(MAPPING)));
        assertThat(counts)
                .containsEntry("r.n > 1", 5)
                .containsEntry("k", 3)
                .containsEntry("sum(rs.n)", 3)
                .containsEntry("max(rs.n)", 3)
                .containsEntry("double(most)", 3)
                .containsEntry("most > 2", 3)
                .containsEntry("names[k].name", 1);
    }
}
