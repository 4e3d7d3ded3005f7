package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the members of a group have beside their fields, and what is decided for each call. */
class GroupMembersTest {
    private static final Inputs ROWS = Inputs.text("rows", "ship,kg\na,1\nb,2\na,3\n");

    private static String grouped(String body) {
        return Language.run(
                "source rows: csv { kg: number }\ndefine total(ms) = sum(ms.gross)\n"
                        + "target o: json(indent = 0) { for row in rows let gross = row.kg * 2 let kg = 99"
                        + " group by row.ship as members { " + body + " } }",
                ROWS);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "sum(members.gross)",
                "sum(members . gross)",
                "sum(members.'gross')",
                "total(members)",
                "sum(m.gross for m in members)",
                "sum((for m in members sort by m.gross desc).gross)"
            })
    @DisplayName("a let of the loop is asked for in any form")
    void lets(String rule) {
        assertThat(grouped("t = " + rule)).isEqualTo("[{\"t\":8},{\"t\":4}]\n");
    }

    @Test
    @DisplayName("a let is no field of the members, and replaces none")
    void copies() {
        assertThat(grouped("t = sum(members.gross)  k = sum(members.kg)  m for m in members { copy m }"))
                .isEqualTo("[{\"t\":8,\"k\":198,\"m\":[{\"ship\":\"a\",\"kg\":1},{\"ship\":\"a\",\"kg\":3}]},"
                        + "{\"t\":4,\"k\":99,\"m\":[{\"ship\":\"b\",\"kg\":2}]}]\n");
        assertThat(grouped("t = [keys(m) for m in members]  d = count(distinct(members))  g = members.gross ?? 0"
                        .replace("  g = members.gross ?? 0", "")))
                .isEqualTo("[{\"t\":[\"ship\",\"kg\",\"ship\",\"kg\"],\"d\":2},{\"t\":[\"ship\",\"kg\"],\"d\":1}]\n");
    }

    @Test
    @DisplayName("a comment changes nothing")
    void comments() {
        assertThat(grouped("# .gross .kg\n n = count(members)  m for m in members { copy m }"))
                .isEqualTo(grouped("n = count(members)  m for m in members { copy m }"));
    }

    @Test
    @DisplayName("groups within groups know the lets of both loops")
    void nested() {
        assertThat(
                        grouped(
                                "for m in members let half = m.gross / 2 group by k = m.kg as same keyed by k => sum(same.half) + sum(same.gross)"))
                .isEqualTo("[{\"99\":12},{\"99\":6}]\n");
    }

    @Test
    @DisplayName("a step by the name of the loop is a mistake")
    void loopName() {
        for (String source : List.of("source rows: csv", "source rows: json")) {
            List<Problem> problems = Language.check(
                    source + "\ntarget o: json { for row in rows group by row.ship as ms => sum(ms.row.kg) }");
            assertThat(problems)
                    .extracting(Problem::message)
                    .containsExactly("A member of the group is what row was, and has no field of that name.");
        }
    }

    @Test
    @DisplayName("a define that makes codes makes another one for each call")
    void volatileDefines() {
        String ids = Language.run(
                "source rows: csv\ndefine newid(x) = uuid()\ndefine other(x) = newid(x)\n"
                        + "target o: csv { for row in rows { a = first([newid(1)])  b = first([other(1)]) } }",
                ROWS);
        assertThat(ids.lines().skip(1).flatMap(line -> List.of(line.split(",")).stream()))
                .doesNotHaveDuplicates()
                .hasSize(6);
    }

    @Test
    @DisplayName("rows of a table without key are not found, and counted once")
    void tablesWithoutKeys() {
        Inputs input = Inputs.text("s", "[{\"k\":\"a\",\"v\":1},{\"k\":null,\"v\":2},{\"v\":3}]");
        Mapping mapping = Language.load("source s: json\ntable t for x in s key x.k\ntable m for x in s key x.k many\n"
                + "target o: json(indent = 0) = [[t[\"a\"].v], [t[null].v], [t[absent].v], [m[null].v], [count(t)]]");
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        Result result = mapping.run(input, Outputs.stream("o", out));
        assertThat(out.toString(java.nio.charset.StandardCharsets.UTF_8)).isEqualTo("[[1],[],[],[],[3]]\n");
        assertThat(result.warnings())
                .extracting(Problem::message)
                .containsOnly("2 rows of this table cannot be looked up, as a key is absent or null.")
                .hasSize(2);
    }
}
