package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Rows of CSV are grouped from their bytes, in UTF-8, or as values, in UTF-16, whose bytes are no
 * characters of ASCII: with the same result, and the same fault at the same place.
 */
class GroupedBytesProperties {
    private static final String LAST = ",\"last, of all\"\n";

    @Provide
    Gen<String> rows() {
        Gen<String> key = Gens.of(
                "a",
                "b",
                "a",
                "\"a\"",
                "\"b\"",
                "1",
                "01",
                "",
                "\"\"",
                "Ålesund",
                "exactly 15 long",
                "sixteen letters.",
                "far longer than what is looked up as two numbers",
                "far longer than what is looked up as two numberz",
                "\"with \"\"quotes\"\"\"",
                "\"two\nlines\"");
        Gen<String> number = Gens.of("1", "2.50", "2.5", "-3", "-0", "007", "", "1e3", "two", " 4");
        Gen<String> usual = Gens.of("1", "2.50", "-3", "10", "0.125", "123456789012345678", "0.000000000001");
        Gen<String> row = Gens.combine(key, key, Gens.frequencyOf(Gens.weighted(12, usual), Gens.weighted(1, number)))
                .as((k, l, n) -> k + "," + l + "," + n + LAST);
        return row.list().ofMaxSize(30).map(all -> "k,l,n,z\n" + String.join("", all));
    }

    @Provide
    Gen<String> loops() {
        List<String> groups = List.of(
                "group by k = r.k as rs",
                "group runs by k = r.k as rs",
                "group runs by k = r.k, l0 = r.l as rs",
                "group by k = r.k as rs where count(rs) > 1",
                "group by k = r.k, l0 = r.l as rs",
                "group by k = r.k, l0 = r.l, n0 = r.n as rs",
                "group runs by k = r.k as rs take 2",
                "where r.k != \"b\" group by k = r.k as rs");
        List<String> uses = List.of(
                "count(rs)",
                "count(rs.n)",
                "count(rs.l)",
                "sum(rs.n)",
                "sum(rs.l)",
                "avg(rs.n)",
                "min(rs.n)",
                "max(rs.n)",
                "max(rs.l)",
                "sum(rs.n) / count(rs)",
                "join(rs.l, \"+\")");
        List<String> inner = List.of(
                "",
                "inner for q in rs group by l = q.l as qs { l? = l  c = count(qs)  s = sum(qs.n) }",
                "inner for q in rs group runs by l = q.l as qs { l? = l  c = count(qs)  m = max(qs.n) }",
                "inner for q in rs group by l = q.l as qs { l? = l  i for p in qs group runs by k2 = p.k as ps => count(ps) }",
                "inner for q in rs group by n2 = q.n as qs => \"{n2}:{count(qs)}\"");
        return Gens.combine(Gens.of(groups), Gens.of(uses), Gens.of(uses), Gens.of(inner))
                .as((group, a, b, loop) ->
                        "list for r in m " + group + " {\n k? = k\n a = " + a + "\n b = " + b + "\n " + loop + "\n}\n");
    }

    private static String outcome(String body, String rows, Charset charset, RunOptions options) {
        String mapping = "source m: csv(encoding = \"" + charset.name() + "\") { n: number }\n"
                + "target o: json(indent = 0) {\n" + body + "}\n";
        Inputs inputs = Inputs.bytes("m", rows.getBytes(charset));
        return Language.outcome(mapping, inputs, options, e -> e.problems().toString());
    }

    @Property(tries = 1_500)
    void groupsFromBytesAreThoseOfValues(
            @ForAll("rows") String rows, @ForAll("loops") String loop, @ForAll @IntRange(max = 2_000) int memory) {
        RunOptions little = RunOptions.DEFAULT.memory(memory);
        String asValues = outcome(loop, rows, StandardCharsets.UTF_16LE, RunOptions.DEFAULT);
        assertThat(outcome(loop, rows, StandardCharsets.UTF_8, RunOptions.DEFAULT))
                .isEqualTo(asValues);
        assertThat(outcome(loop, rows, StandardCharsets.UTF_8, little)).isEqualTo(asValues);
    }

    @Test
    void filesAreGroupedAsOneSequence(@TempDir Path folder) throws IOException {
        String body = "list for r in m group runs by k = r.k as rs { k? = k  c = count(rs) }\n";
        String mapping = "source m: csv(files = many)\ntarget o: json(indent = 0) {\n" + body + "}\n";
        Path first = Files.writeString(folder.resolve("1.csv"), "k,n\na,1\na,2\nb,3\n");
        Path empty = Files.writeString(folder.resolve("2.csv"), "k,n\n");
        Path last = Files.writeString(folder.resolve("3.csv"), "n,k\n4,b\n5,b\n6,a\n");
        assertThat(Language.run(mapping, Inputs.NONE.andFiles("m", List.of(first, empty, last))))
                .isEqualTo("{\"list\":[{\"k\":\"a\",\"c\":2},{\"k\":\"b\",\"c\":3},{\"k\":\"a\",\"c\":1}]}\n");
    }

    @Test
    void aNumberThatIsNoneIsToldWithItsRow() {
        String rows = "k,l,n,z\na,x,1,\na,x,2,\na,x,two,\n";
        String body = "list for r in m group by k = r.k as rs { k = k  s = sum(rs.n) }\n";
        assertThat(outcome(body, rows, StandardCharsets.UTF_8, RunOptions.DEFAULT))
                .contains("record 3")
                .isEqualTo(outcome(body, rows, StandardCharsets.UTF_16LE, RunOptions.DEFAULT));
    }
}
