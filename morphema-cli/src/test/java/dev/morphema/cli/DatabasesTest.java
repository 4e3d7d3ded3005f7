package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Databases as inputs and outputs of the command. */
class DatabasesTest {
    @TempDir
    private Path folder;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();
    private String mapping;

    @BeforeEach
    void database() throws SQLException, IOException {
        try (Connection connection = DriverManager.getConnection(url());
                Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE call (id INTEGER PRIMARY KEY, ship TEXT)");
            statement.execute("INSERT INTO call VALUES (1, 'Sula')");
        }
        mapping = file("calls.morphema", """
                morphema 1
                source calls: sql(query = "select ship from call")
                target ships: csv { for c in calls { ship = c.ship } }
                """);
    }

    private String url() {
        return "jdbc:sqlite:" + folder.resolve("harbour.db");
    }

    private String file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text).toString();
    }

    private int run(String... words) {
        return Main.run(words, new ByteArrayInputStream(new byte[0]), out, err);
    }

    @Test
    @DisplayName("an input is a database by its address")
    void address() {
        assertThat(run("run", mapping, "--in", url())).isZero();
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("ship\nSula\n");
    }

    @Test
    @DisplayName("an output is a database by the name of a connection")
    void connection() throws IOException {
        String write = file("write.morphema", """
                morphema 1
                source rows: csv
                target call: sql(table = "call") { for r in rows { id = r.id  ship = r.ship } }
                """);
        String rows = file("rows.csv", "id,ship\n2,Havgap\n");
        String connections = file("connections.properties", "harbour.url = " + url() + "\n");
        assertThat(run("run", write, "--in", rows, "--out", "harbour", "--connections", connections))
                .isZero();
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("written call: 1 record in harbour");
        assertThat(run("run", mapping, "--in", url())).isZero();
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("ship\nSula\nHavgap\n");
    }

    @Test
    @DisplayName("what may be a password is not shown")
    void passwords() {
        assertThat(run("run", mapping, "--in", "jdbc:postgresql://localhost:1/x?user=me&password=geheim"))
                .isEqualTo(ExitCode.FILE);
        assertThat(err.toString(StandardCharsets.UTF_8))
                .contains("The input of the source calls cannot be read: ")
                .doesNotContain("geheim");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a file of connections that is wrong is told with its key")
    @CsvSource({
        "harbour.url=jdbc:x:${NO_SUCH}, The environment has no variable NO_SUCH., harbour.url",
        "harbour=jdbc:x, 'A connection has a name and a property of it, with a point between.', harbour",
        "harbour.user=me, The connection harbour has no address., harbour.url"
    })
    void wrongConnections(String line, String message, String key) throws IOException {
        Path connections = Path.of(file("connections.properties", line));
        assertThatThrownBy(() -> Databases.of(connections, Map.of()))
                .isInstanceOfSatisfying(ProblemException.class, e -> {
                    assertThat(e.problem().message()).isEqualTo(message);
                    assertThat(e.problem().value()).isEqualTo(key);
                });
    }

    @Test
    @DisplayName("variables of the environment stand for passwords")
    void variables() throws IOException {
        Path connections =
                Path.of(file("connections.properties", "harbour.url = ${URL}\nharbour.password = a${SECRET}b"));
        Databases databases = Databases.of(connections, Map.of("URL", url(), "SECRET", "$1"));
        assertThat(databases.find("harbour")).isPresent();
        assertThat(databases.find("harbour.csv")).isEmpty();
    }
}
