package dev.morphema.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import dev.morphema.format.Input;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Rows of a table too large to read are asked for when they are looked up. */
class OnDemandTest {
    private static final Morphema MORPHEMA = Morphema.builder()
            .installedFormats(SqlSource.class.getClassLoader())
            .build();
    private static final String SHIPS =
            "source ships: sql(query = \"SELECT imo, name, flag FROM ship WHERE imo = :imo\", on-demand = \"imo\")\n";

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    @TempDir
    private Path folder;

    private Result run(Input ships, String calls, String mapping) {
        out.reset();
        return MORPHEMA.load("test.morphema", "morphema 1\nsource calls: csv\n" + mapping, folder)
                .run(Inputs.text("calls", calls).andInput("ships", ships), Outputs.stream("o", out));
    }

    private String written() {
        return out.toString(StandardCharsets.UTF_8);
    }

    private TestDatabase database(TestDatabase.Kind kind) throws IOException {
        return TestDatabase.of(kind, folder)
                .run(
                        "CREATE TABLE ship (imo INTEGER, name VARCHAR(20), flag CHAR(2))",
                        "INSERT INTO ship VALUES (9000011, 'Nordlys Star', 'XX'), (9000023, 'Sula Trader', 'XY'), (7, 'A', 'XX'), (7, 'B', 'XX')");
    }

    @ParameterizedTest
    @DisplayName("a row is asked for once, by a key in the kind of its column")
    @EnumSource(TestDatabase.Kind.class)
    void once(TestDatabase.Kind kind) throws IOException {
        Result result =
                run(database(kind).database().input(), "imo\n9000011\n9000023\n9000011\n1\nnone\n\n", SHIPS + """
                table ship for s in ships key s.imo
                target o: csv(header = false) { for c in calls { name = ship[c.imo].name ?? "?"  flag = ship[c.imo].flag } }
                """);
        assertThat(written()).isEqualTo("Nordlys Star,XX\nSula Trader,XY\nNordlys Star,XX\n?,\n?,\n");
        assertThat(result.read()).containsEntry("ships", 2L);
        assertThat(result.missed().get(0).count()).isEqualTo(2);
    }

    @Test
    @DisplayName("several rows of a key are wanted, or a problem")
    void several() throws IOException {
        TestDatabase database = database(TestDatabase.Kind.H2);
        String target = "\ntarget o: csv(header = false) { for c in calls { names = join(ship[c.imo].name, \"+\") } }";
        run(database.database().input(), "imo\n7\n1\n", SHIPS + "table ship for s in ships key s.imo many" + target);
        assertThat(written()).isEqualTo("A+B\n\"\"\n");
        assertThatThrownBy(() -> run(
                        database.database().input(),
                        "imo\n7\n",
                        SHIPS + "table ship for s in ships key s.imo" + target))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("A key of this table has 2 rows.");
    }

    @Test
    @DisplayName("several fields are the key, beside parameters of the mapping")
    void keysAndParameters() throws IOException {
        String mapping = """
                param least: number = 100
                source ships: sql(
                  query     = ["SELECT name FROM ship", "WHERE flag = :flag AND imo = :imo AND imo > :least"],
                  on-demand = ["imo", "flag"]
                )
                table ship for s in ships key s.imo, s.flag
                target o: csv(header = false) { for c in calls { name = ship[c.imo, c.flag].name ?? "?" } }
                """;
        run(database(TestDatabase.Kind.H2).database().input(), "imo,flag\n9000011,XX\n9000011,XY\n7,XX\n", mapping);
        assertThat(written()).isEqualTo("Nordlys Star\n?\n?\n");
    }

    @Test
    @DisplayName("kept rows in place of a database are found as it would find them")
    void keptRows() {
        Input kept = Input.of("ships.json", "[{\"imo\":9000011,\"name\":\"Kept\"}]".getBytes(StandardCharsets.UTF_8));
        run(kept, "imo\n9000011\n1\n", SHIPS + """
                table ship for s in ships key s.imo
                target o: csv(header = false) { for c in calls { name = ship[c.imo].name ?? "?" } }
                """);
        assertThat(written()).isEqualTo("Kept\n?\n");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what cannot be asked for is told when the mapping is checked")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "table ship for s in ships where s.flag == \"XX\" key s.imo ~ The records of ships are asked for on demand by imo, and this table is another one.",
                "table ship for s in ships key s.name ~ The records of ships are asked for on demand by imo, and this table is another one.",
                "let n = count(ships) ~ The records of ships are asked for on demand, so there is no going through all of them.",
                "table ship for s in ships key s.imo let n = count(ship) ~ The records of ships are asked for on demand, so there is no going through all of them."
            })
    void checks(String declaration, String message) {
        assertThat(MORPHEMA.check(
                                "test.morphema",
                                "morphema 1\n" + SHIPS + declaration.replace(" let ", "\nlet ") + "\ntarget o: json = "
                                        + (declaration.contains("let n") ? "n" : "ship[1].name"),
                                folder)
                        .problems())
                .anySatisfy(problem -> assertThat(problem.message()).isEqualTo(message));
    }

    @Test
    @DisplayName("a table that names a query instead of a file is told how it is written")
    void tableOfQuery() {
        assertThat(MORPHEMA.check(
                                "test.morphema",
                                "morphema 1\ntable ship: sql(query = \"SELECT 1\") key imo, flag\ntarget o: json = ship[1, 2].x",
                                folder)
                        .problems())
                .anySatisfy(problem -> assertThat(problem.help())
                        .isEqualTo("csv(\"tables/codes.csv\"), or over a source: source rows: sql(query = \"SELECT 1\")"
                                + "  table ship for x in rows key x.imo, x.flag"));
    }

    @Test
    @DisplayName("a query that does not ask for its key is told")
    void wrongQuery() {
        assertThat(MORPHEMA.check(
                                "test.morphema",
                                "morphema 1\nsource s: sql(query = \"SELECT 1\", on-demand = \"imo\")\ntarget o: json = count(s)",
                                folder)
                        .problems())
                .anySatisfy(problem -> assertThat(problem.message())
                        .isEqualTo(
                                "The query does not ask for :imo, by which its rows are to be asked for on demand."));
    }
}
