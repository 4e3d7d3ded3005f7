package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What is not in the outputs is counted: warnings, records that were left out, look-ups that found
 * nothing, empty inputs.
 */
class CountsTest {
    private static Result run(String mapping, Inputs inputs) {
        return Language.load(mapping).run(inputs, Outputs.stream("o", OutputStream.nullOutputStream()));
    }

    private static Inputs numbers(int count) {
        return Inputs.text(
                "s",
                "k\n"
                        + IntStream.rangeClosed(1, count)
                                .mapToObj(Integer::toString)
                                .collect(Collectors.joining("\n")));
    }

    @Test
    @DisplayName("warnings are counted exactly for each rule, of which the first thousand are kept")
    void warnings() {
        Result result = run("""
                source s: csv { k: number }
                target o: csv { for x in s {
                  k = x.k
                  require (x.k < 1) else warn "first {x.k}"
                  require (x.k > 100) else warn "second {x.k}"
                } }
                """, numbers(20_000));
        assertThat(result.warnings()).hasSize(1_000);
        assertThat(result.warningsInAll()).isEqualTo(20_100);
        assertThat(result.kindsOfWarnings()).hasSize(2).allSatisfy((kind, count) -> {
            assertThat(kind.code()).isEqualTo(Code.REQUIREMENT);
            assertThat(count).isEqualTo(kind.rule().line() == 5 ? 20_000 : 100);
        });
    }

    @Test
    @DisplayName("look-ups that found nothing are counted for each table, with the keys that were missing most often")
    void missed() {
        String keys = "a,\nb,1\nb,1\nc,2\nb,9\n,1\nc,2\n";
        Result result = run("""
                source s: csv
                source r: csv
                table one { a = "x" }
                table two for x in r key x.k, x.n
                target o: csv { for x in s { v = one[x.k]  w = two[x.k, x.n].v } }
                """, Inputs.text("s", "k,n\n" + keys).andText("r", "k,n,v\nc,2,y\n"));
        assertThat(result.missed()).extracting(Result.Missed::table).containsExactly("one", "two");
        assertThat(result.missed().get(0).count()).isEqualTo(5);
        assertThat(result.missed().get(0).keys()).containsExactly(Map.entry("b", 3L), Map.entry("c", 2L));
        assertThat(result.missed().get(1).keys()).containsExactly(Map.entry("b, 1", 2L), Map.entry("b, 9", 1L));
        assertThat(result.warningsInAll()).isZero();
    }

    @Test
    @DisplayName("records that a where leaves out are counted for each where")
    void leftOut() {
        Result result = run("""
                source s: csv { k: number }
                target o: csv { for x in s where x.k > 10 where x.k < 90 where x.k > 0 group by odd = x.k % 2 as same {
                  odd = odd
                  n = count([1 for y in same where y.k != 50])
                } }
                """, numbers(100));
        assertThat(result.leftOut())
                .extracting(left -> left.condition() + ": " + left.count())
                .containsExactly("x.k > 10: 10", "x.k < 90: 11", "y.k != 50: 1");
        assertThat(result.leftOut().get(0).rule().line()).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource({"jsonl,''", "csv,''", "csv,'k\n'", "json,[]"})
    @DisplayName("an input without a record is told")
    void empty(String format, String input) {
        List<Problem> warnings = run(
                        "source s: " + format + "\ntarget o: jsonl { for x in s { copy x } }", Inputs.text("s", input))
                .warnings();
        assertThat(warnings).extracting(Problem::code).containsExactly(Code.NO_RECORDS);
        assertThat(warnings.get(0).input()).isNotNull();
    }
}
