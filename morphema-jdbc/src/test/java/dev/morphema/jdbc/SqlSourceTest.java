package dev.morphema.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.RunOptions;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Rows of queries are read from real databases. */
class SqlSourceTest {
    private static final Morphema MORPHEMA = Morphema.builder()
            .installedFormats(SqlSource.class.getClassLoader())
            .build();

    @TempDir
    private Path folder;

    private Checked check(String mapping) {
        return MORPHEMA.check("test.morphema", "morphema 1\n" + mapping, folder);
    }

    private String run(TestDatabase database, RunOptions options, String mapping) {
        Mapping checked = check(mapping + "\ntarget o: jsonl { for r in rows { copy r } }")
                .orThrow();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        checked.run(Inputs.NONE.andInput("rows", database.database().input()), Outputs.stream("o", out), options);
        return out.toString(StandardCharsets.UTF_8).strip();
    }

    @ParameterizedTest
    @DisplayName("columns have the kinds of their types, null is null")
    @EnumSource(TestDatabase.Kind.class)
    void kinds(TestDatabase.Kind kind) throws IOException {
        TestDatabase database = TestDatabase.of(kind, folder)
                .run(
                        "CREATE TABLE call (id INTEGER PRIMARY KEY, ship VARCHAR(20), eta DATE, at TIMESTAMP, mass DECIMAL(10,2), load BOOLEAN)",
                        "INSERT INTO call VALUES (1, 'Nordlys Star', '2026-03-04', '2026-03-04 10:30:00', 10.25, true)",
                        "INSERT INTO call (id) VALUES (2)");
        assertThat(run(
                        database,
                        RunOptions.DEFAULT,
                        "source rows: sql(query = \"SELECT id, ship, eta, at, mass, load FROM call ORDER BY id\")"))
                .isEqualTo("""
                        {"id":1,"ship":"Nordlys Star","eta":"2026-03-04","at":"2026-03-04T10:30:00","mass":10.25,"load":true}
                        {"id":2,"ship":null,"eta":null,"at":null,"mass":null,"load":null}""");
    }

    @Test
    @DisplayName("documents are records, arrays are lists, and times keep their offset")
    void documents() throws IOException {
        TestDatabase database = TestDatabase.of(TestDatabase.Kind.POSTGRESQL, folder)
                .run(
                        "CREATE TABLE call (doc JSONB, crew XML, tags TEXT[], at TIMESTAMP WITH TIME ZONE)",
                        "INSERT INTO call VALUES ('{\"a\": [1, 2]}', '<crew><name>Kari</name></crew>', '{x,y}', '2026-03-04 10:30:00+00')");
        assertThat(run(
                        database,
                        RunOptions.DEFAULT,
                        "source rows: sql(query = \"SELECT doc, crew, tags, at FROM call\")"))
                .isEqualTo(
                        "{\"doc\":{\"a\":[1,2]},\"crew\":{\"crew\":{\"name\":\"Kari\"}},\"tags\":[\"x\",\"y\"],\"at\":\"2026-03-04T10:30:00Z\"}");
    }

    @ParameterizedTest
    @DisplayName("parameters are bound as values, whatever they hold")
    @EnumSource(TestDatabase.Kind.class)
    void parameters(TestDatabase.Kind kind) throws IOException {
        TestDatabase database = TestDatabase.of(kind, folder)
                .run(
                        "CREATE TABLE call (id INTEGER, port VARCHAR(40))",
                        "INSERT INTO call VALUES (1, 'A'), (2, 'A'), (3, 'x'' OR ''1''=''1')");
        String mapping = """
                param port: text = "A"
                param least: number = 0
                source rows: sql(query = ["SELECT id FROM call -- not :this", "WHERE port = :port AND id > :least AND ':no' <> port ORDER BY id"])""";
        assertThat(run(database, RunOptions.DEFAULT, mapping)).isEqualTo("{\"id\":1}\n{\"id\":2}");
        assertThat(run(database, RunOptions.DEFAULT.param("least", "1"), mapping))
                .isEqualTo("{\"id\":2}");
        assertThat(run(database, RunOptions.DEFAULT.param("port", "x' OR '1'='1"), mapping))
                .isEqualTo("{\"id\":3}");
        assertThat(database.rows("SELECT count(*) FROM call")).containsExactly("3");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what is wrong with a source is told when the mapping is checked")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "source rows: sql ~ A source of the format sql needs the option query: sql(query = \"select …\").",
                "source rows: sql(query = \"SELECT 1 WHERE :prt = 1\")\\nparam port: text = \"A\" ~ The mapping has no parameter prt, which is named here.",
                "source rows: sql(query = 1) ~ The option query is a text or a list of texts."
            })
    void wrongSources(String mapping, String message) {
        assertThat(check(mapping.replace("\\n", "\n") + "\ntarget o: json = count(rows)")
                        .problems()
                        .get(0)
                        .message())
                .isEqualTo(message);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what a database refuses is told in its words")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "SELECT nothing FROM call ~ The database does not run this query: Column \"NOTHING\" not found.",
                "SELEC 1 ~ The database does not run this query: Syntax error in SQL statement"
            })
    void refusedQueries(String query, String message) throws IOException {
        TestDatabase database = TestDatabase.in(folder).run("CREATE TABLE call (doc VARCHAR(10))");
        assertThatThrownBy(() -> run(database, RunOptions.DEFAULT, "source rows: sql(query = \"" + query + "\")"))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().message()).startsWith(message));
    }

    @Test
    @DisplayName("a field that the query does not give is told with the columns that it does")
    void missingColumn() throws IOException {
        TestDatabase database =
                TestDatabase.in(folder).run("CREATE TABLE call (ship VARCHAR(10))", "INSERT INTO call VALUES ('a')");
        Mapping mapping = check(
                        "source rows: sql(query = \"SELECT ship FROM call\")\ntarget o: json { for r in rows { s = r.shp } }")
                .orThrow();
        assertThatThrownBy(() -> mapping.run(
                        Inputs.NONE.andInput("rows", database.database().input()),
                        Outputs.stream("o", new ByteArrayOutputStream())))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().message() + " "
                                        + e.problem().help())
                                .contains("shp")
                                .containsIgnoringCase("ship"));
    }

    @Test
    @DisplayName("kept rows stand for a database, as a sample and as an input")
    void keptRows() throws IOException {
        Files.writeString(folder.resolve("rows.json"), "[{\"id\": 1, \"ship\": \"Sula\"}]");
        String mapping = "source rows: sql(query = \"SELECT id, ship FROM call\", sample = \"rows.json\")\n";
        assertThat(check(mapping + "target o: json { for r in rows { ship = r.shp } }")
                        .problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.help()).isEqualTo("did you mean ship?"));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        check(mapping + "target o: jsonl { for r in rows { ship = r.ship } }")
                .orThrow()
                .run(Inputs.file("rows", folder.resolve("rows.json")), Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("{\"ship\":\"Sula\"}\n");
    }

    @Test
    @DisplayName("a database for a source of another format is refused")
    void otherFormat() throws IOException {
        Mapping mapping =
                check("source rows: csv\ntarget o: json = count(rows)").orThrow();
        TestDatabase database = TestDatabase.in(folder);
        assertThatThrownBy(() -> mapping.run(
                        Inputs.NONE.andInput("rows", database.database().input()),
                        Outputs.stream("o", new ByteArrayOutputStream())))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("this is a database, which is read by a source of the format sql");
    }
}
