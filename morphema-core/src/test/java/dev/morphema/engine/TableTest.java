package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a look-up finds, by keys of any kind, in ranges, and in tables of many rows for a key. */
class TableTest {
    private static final String[] TARIFF = {
        "kind,lo,hi,dues", "cargo,0,10,50", "cargo,10,100,300", "cargo,100,,900", "mail,,,1"
    };

    private static String found(String table, String lookUp, String... rows) {
        return rehearsal(table, lookUp, rows).written().replaceAll("^o: \\{x= |} done$|^o: \\{} done$", "");
    }

    /** The names of two columns, then so many rows. */
    private static String[] rows(int count, IntFunction<String> row) {
        return Stream.concat(Stream.of("k,v"), IntStream.range(0, count).mapToObj(row))
                .toArray(String[]::new);
    }

    private static Rehearsal rehearsal(String table, String lookUp, String... rows) {
        return new Rehearsal("source rows: memory\ntable t for r in rows key " + table + "\ntarget o: events { x? = "
                        + lookUp + " }")
                .rows("rows", rows);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "t[\"a\"].v; 1",
                "t[\"b\"].v; 2",
                "t[\"c\"].v ?? \"none\"; none",
                "t[\"\"].v ?? \"none\"; none",
                "t[absent].v ?? \"none\"; none",
                "t[1].v; one",
                "t[\"1\"].v; one",
                "t[1.0].v ?? \"none\"; none",
                "t[\"a\"].k; a",
                "count(t); 3",
            })
    @DisplayName("a row is found by its key; a number finds a text that is written like it")
    void byOneKey(String lookUp, String result) {
        assertThat(found("r.k", lookUp, "k,v", "a,1", "b,2", "1,one")).isEqualTo(result);
    }

    @ParameterizedTest
    @CsvSource({"'t[\"a\", \"x\"].v', 1", "'t[\"a\", \"y\"].v', 2", "'t[\"ax\", \"\"].v ?? \"none\"', none"})
    @DisplayName("two keys are two, however their texts could be put together")
    void byTwoKeys(String lookUp, String result) {
        assertThat(found("r.k, r.l", lookUp, "k,l,v", "a,x,1", "a,y,2", "b,x,3"))
                .isEqualTo(result);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 50",
        "9.99, 50",
        "10, 300",
        "99.999, 300",
        "100, 900",
        "1000000, 900",
        "-1, none",
    })
    @DisplayName("a range begins with its first value and ends before its last; an open end has none")
    void byRange(String asked, String dues) {
        assertThat(found("r.kind range r.lo to r.hi", "t[\"cargo\", " + asked + "].dues ?? \"none\"", TARIFF))
                .isEqualTo(dues);
    }

    @Test
    @DisplayName("a range without ends holds everything, but not nothing")
    void openRange() {
        assertThat(found("r.kind range r.lo to r.hi", "t[\"mail\", -5].dues", TARIFF))
                .isEqualTo("1");
        assertThat(found("r.kind range r.lo to r.hi", "t[\"mail\", absent].dues ?? \"none\"", TARIFF))
                .isEqualTo("none");
    }

    @Test
    @DisplayName("ranges that overlap are a problem, with both lines")
    void overlappingRanges() {
        Problem problem = catchThrowableOfType(
                        ProblemException.class,
                        rehearsal(
                                "r.kind range r.lo to r.hi",
                                "t[\"a\", 1].dues",
                                "kind,lo,hi,dues",
                                "a,0,10,1",
                                "a,9,20,2")::run)
                .problem();
        assertThat(problem.code()).isEqualTo(Code.DUPLICATE_KEY);
        assertThat(problem.message()).contains("overlap").contains("line 2").contains("line 3");
    }

    @Test
    @DisplayName("a table of many gives all rows of a key, in their order, and none where there is none")
    void many() {
        String[] rows = {"k,v", "a,1", "b,2", "a,3"};
        assertThat(found("r.k many", "join(t[\"a\"].v, \"+\")", rows)).isEqualTo("1+3");
        assertThat(found("r.k many", "count(t[\"c\"])", rows)).isEqualTo("0");
    }

    @Test
    @DisplayName("a table of thousands of rows, which are laid side by side as bytes, gives the same rows")
    void large() {
        String[] rows = rows(3_000, i -> "key " + i + ",value " + i % 7);
        for (int i : new int[] {0, 1, 1_023, 1_024, 1_025, 2_999}) {
            assertThat(found("r.k", "t[\"key " + i + "\"].v", rows)).isEqualTo("value " + i % 7);
        }
        assertThat(found("r.k", "t[\"key 3000\"].v ?? \"none\"", rows)).isEqualTo("none");
        assertThat(found("r.k", "join([r2.v for r2 in t take 3], \" \")", rows)).isEqualTo("value 0 value 1 value 2");
    }

    @Test
    @DisplayName("of thousands of rows for a few keys each key gives its own, in their order")
    void largeOfMany() {
        String[] rows = rows(3_000, i -> "key " + i % 500 + ",value " + i);
        for (int i : new int[] {0, 7, 499}) {
            assertThat(found("r.k many", "join(t[\"key " + i + "\"].v, \"+\")", rows))
                    .isEqualTo(IntStream.range(0, 6)
                            .mapToObj(n -> "value " + (i + 500 * n))
                            .collect(Collectors.joining("+")));
        }
        assertThat(found("r.k many", "count(t[\"key 500\"])", rows)).isEqualTo("0");
        assertThat(found("r.k many", "count(t)", rows)).isEqualTo("3000");
        assertThat(found("r.k many", "last(t).v", rows)).isEqualTo("value 2999");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " many"})
    @DisplayName("rows of a table over two loops have what stands around them in common")
    void largeOfTwoLoops(String many) {
        String[] rows = rows(3_000, i -> "key " + i + ",value " + i);
        Rehearsal rehearsal = new Rehearsal("source rows: memory\nlet all = { list = [rows] }\n"
                        + "table t for a in all for r in a.list key r.k" + many + "\n"
                        + "target o: events { x = join(t[\"key 2500\"].r.v, \"+\")\n"
                        + " y = count(first(t[\"key 1500\"]).a.list) }")
                .rows("rows", rows);
        assertThat(rehearsal.written()).isEqualTo("o: {x= value 2500 y= 3000} done");
    }

    @Test
    @DisplayName("a key that comes twice in a large table is told with the line where it stood first")
    void twiceInALargeTable() {
        String[] rows = rows(2_000, i -> "key " + i % 1_500 + ",x");
        Problem problem = catchThrowableOfType(ProblemException.class, rehearsal("r.k", "t[\"key 1\"].v", rows)::run)
                .problem();
        assertThat(problem.message()).contains("line 2 ").contains("line 1502");
    }

    @Test
    @DisplayName("an inline table gives its values, and its rows have a key and a value")
    void inline() {
        Rehearsal rehearsal = new Rehearsal("table t { BX = \"box\"  DR = \"drum\" }\n"
                + "target o: events { x = t[\"DR\"]  y = t[\"ZZ\"]  all = join(t.key, \"+\")  n = count(t) }");
        assertThat(rehearsal.written()).isEqualTo("o: {x= drum all= BX+DR n= 2} done");
    }
}
