package dev.morphema.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.when;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Targets are written into tables of real databases, whole or not at all. */
class SqlTargetTest {
    private static final Morphema MORPHEMA = Morphema.builder()
            .installedFormats(SqlTarget.class.getClassLoader())
            .build();

    private static final String TABLE =
            "CREATE TABLE call (id INTEGER PRIMARY KEY, ship VARCHAR(20) NOT NULL, " + "eta DATE, mass DECIMAL(10,2))";

    @TempDir
    private Path folder;

    private static String mapping(String options) {
        return "morphema 1\nsource rows: csv\ntarget t: sql(table = \"call\"" + options + ") {\n"
                + "  for r in rows { id = r.id  ship = r.ship  eta = r.eta  mass = r.mass }\n}\n"
                + "target copy: jsonl { for r in rows { copy r } }\n";
    }

    private void write(Database database, String mapping, String rows) {
        MORPHEMA.load("test.morphema", mapping, folder)
                .run(
                        Inputs.text("rows", rows),
                        Outputs.file("copy", folder.resolve("copy.jsonl")).andRecords("t", database.output()));
    }

    private Problem refused(Database database, String mapping, String rows) {
        ProblemException e = catchThrowableOfType(ProblemException.class, () -> write(database, mapping, rows));
        assertThat(e).isNotNull();
        assertThat(folder.resolve("copy.jsonl")).doesNotExist();
        return e.problem();
    }

    @ParameterizedTest
    @DisplayName("rows are inserted, texts as what the columns are")
    @EnumSource(TestDatabase.Kind.class)
    void inserts(TestDatabase.Kind kind) throws IOException {
        TestDatabase database = TestDatabase.of(kind, folder).run(TABLE);
        write(database.database(), mapping(""), "id,ship,eta,mass\n1,Nordlys,2026-03-04,10.5\n2,Sula,,\n");
        assertThat(database.rows("SELECT id, ship FROM call ORDER BY id")).containsExactly("1,Nordlys", "2,Sula");
        assertThat(database.rows("SELECT mass * 2 FROM call WHERE eta IS NOT NULL")
                        .get(0))
                .startsWith("21");
        assertThat(folder.resolve("copy.jsonl")).exists();
    }

    @ParameterizedTest
    @DisplayName("a merge changes the row that is there, and adds the others")
    @EnumSource(TestDatabase.Kind.class)
    void merges(TestDatabase.Kind kind) throws IOException {
        TestDatabase database =
                TestDatabase.of(kind, folder).run(TABLE, "INSERT INTO call (id, ship) VALUES (1, 'old'), (9, 'stays')");
        write(
                database.database(),
                mapping(", write = merge, key = \"id\""),
                "id,ship,eta,mass\n1,new,,1\n2,first,,\n3,third,,\n2,second,,\n");
        assertThat(database.rows("SELECT id, ship FROM call ORDER BY id"))
                .containsExactly("1,new", "2,second", "3,third", "9,stays");
    }

    @ParameterizedTest
    @DisplayName("an update of a row that is not there is told, and nothing is changed")
    @EnumSource(TestDatabase.Kind.class)
    void updates(TestDatabase.Kind kind) throws IOException {
        TestDatabase database =
                TestDatabase.of(kind, folder).run(TABLE, "INSERT INTO call (id, ship) VALUES (1, 'old')");
        String mapping = mapping(", write = update, key = [\"id\"]");
        Problem problem = refused(database.database(), mapping, "id,ship,eta,mass\n1,new,,\n7,none,,\n");
        assertThat(problem.message()).isEqualTo("The table call has no row with the key of row 2.");
        assertThat(problem.value()).isEqualToIgnoringCase("id = 7");
        assertThat(database.rows("SELECT ship FROM call")).containsExactly("old");
        write(database.database(), mapping, "id,ship,eta,mass\n1,new,,\n");
        assertThat(database.rows("SELECT ship FROM call")).containsExactly("new");
    }

    @ParameterizedTest
    @DisplayName("the row that a database refuses is named, and none is written")
    @EnumSource(TestDatabase.Kind.class)
    void refusedRow(TestDatabase.Kind kind) throws IOException {
        TestDatabase database = TestDatabase.of(kind, folder).run(TABLE);
        StringBuilder rows = new StringBuilder("id,ship,eta,mass\n");
        for (int i = 1; i <= 6_000; i++) {
            rows.append(i == 5_000 ? 17 : i).append(",ship,,\n");
        }
        Problem problem = refused(database.database(), mapping(""), rows.toString());
        assertThat(problem.message()).startsWith("The database refuses row 5000 of the table call");
        assertThat(problem.rule().line()).isEqualTo(3);
        assertThat(database.rows("SELECT count(*) FROM call")).containsExactly("0");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a value that a column does not take is told with its rule and place")
    @CsvSource({
        "'x,ship,,', id, x",
        "'1.5,ship,,', id, 1.5",
        "'1,ship,04.03.2026,', eta, 04.03.2026",
        "'1,ship,,much', mass, much"
    })
    void unfitValues(String row, String column, String value) throws IOException {
        TestDatabase database = TestDatabase.in(folder).run(TABLE);
        Problem problem = refused(database.database(), mapping(""), "id,ship,eta,mass\n" + row + "\n");
        assertThat(problem.message()).startsWithIgnoringCase("The column " + column + " is of the type ");
        assertThat(problem.value()).isEqualTo(value);
        assertThat(problem.rule().line()).isEqualTo(4);
        assertThat(problem.input().line()).isEqualTo(2);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a table that is not what the target writes is told before the first row")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "CREATE TABLE calls (id INTEGER) ~ The database has no table call to write to: Table \"CALL\" not found",
                "CREATE TABLE call (id INTEGER, ship VARCHAR(9), arrival DATE, mass INTEGER) ~ The table call has no column eta.",
                "CREATE TABLE call (id INTEGER, ship VARCHAR(9), eta DATE, mass INTEGER, port VARCHAR(5) NOT NULL, berth INTEGER DEFAULT 1 NOT NULL) ~ A row of the table call needs a value for PORT."
            })
    void otherTables(String table, String message) throws IOException {
        Problem problem = refused(TestDatabase.in(folder).run(table).database(), mapping(""), "id,ship,eta,mass\n");
        assertThat(problem.message()).startsWith(message);
        assertThat(problem.rule().line()).isEqualTo(3);
    }

    @Test
    @DisplayName("if the rows cannot be made last, no file takes its place")
    void commitFails() throws IOException, SQLException {
        TestDatabase database = TestDatabase.in(folder).run(TABLE);
        Connection connection = spy(database.connect());
        doThrow(new SQLException("The line is dead.")).when(connection).commit();
        DataSource source = mock(DataSource.class);
        when(source.getConnection()).thenReturn(connection);
        Problem problem = refused(Database.of("harbour", source), mapping(""), "id,ship,eta,mass\n1,a,,\n");
        assertThat(problem.message())
                .isEqualTo("The output cannot be written: the database does not take the rows: The line is dead.");
        assertThat(database.rows("SELECT count(*) FROM call")).containsExactly("0");
    }

    @Test
    @DisplayName("a connection that ends in the middle of a run is told, and nothing is written")
    void connectionLost() throws IOException, SQLException {
        TestDatabase database = TestDatabase.in(folder).run(TABLE);
        Connection connection = spy(database.connect());
        doThrow(new SQLException("The line is dead.")).when(connection).setSavepoint();
        DataSource source = mock(DataSource.class);
        when(source.getConnection()).thenReturn(connection);
        assertThat(refused(Database.of("harbour", source), mapping(""), "id,ship,eta,mass\n1,a,,\n")
                        .message())
                .isEqualTo("The database does not write to the table call: The line is dead.");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("options that do not go together are told when the mapping is checked")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                ", key = \"id\" ~ Only write = update and write = merge have a key.",
                ", write = merge ~ This way of writing needs the columns that tell rows apart: key = \"id\".",
                ", write = upsert ~ The option write is one of the words insert, update, merge."
            })
    void wrongOptions(String options, String message) {
        assertThat(MORPHEMA.check("test.morphema", mapping(options), folder).problems())
                .first()
                .extracting(Problem::message)
                .isEqualTo(message);
    }

    @ParameterizedTest
    @DisplayName("a file gets the statements, which do what the run would have done")
    @ValueSource(strings = {"", ", write = merge, key = \"id\""})
    void scripts(String options) throws IOException {
        TestDatabase database = TestDatabase.in(folder).run(TABLE);
        ByteArrayOutputStream script = new ByteArrayOutputStream();
        String typed = mapping(options).replace("csv", "csv { eta: date  mass: number }");
        MORPHEMA.load("test.morphema", typed, folder)
                .run(
                        Inputs.text("rows", "id,ship,eta,mass\n1,Kari's,2026-03-04,10.5\n2,Sula,,\n3,x,,1\n"),
                        Outputs.stream("t", script));
        String text = script.toString(StandardCharsets.UTF_8);
        assertThat(text).contains("'Kari''s', DATE '2026-03-04', 10.5");
        database.run(text.split(";\n"));
        assertThat(database.rows("SELECT id, ship FROM call ORDER BY id")).containsExactly("1,Kari's", "2,Sula", "3,x");
    }
}
