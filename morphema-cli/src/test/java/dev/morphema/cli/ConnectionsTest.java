package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
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

/** Connections as inputs and outputs of the command. */
class ConnectionsTest {
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
    @DisplayName("an input is a document of the web by its address, or by the name of a connection")
    void web() throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            boolean known = "Bearer s3cret".equals(exchange.getRequestHeaders().getFirst("Authorization"));
            byte[] body = "ship\nSula\n".getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(
                    known || exchange.getRequestURI().getPath().equals("/open") ? 200 : 401, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
        try {
            String address = "http://127.0.0.1:" + server.getAddress().getPort();
            String read = file("read.morphema", "morphema 1 source s: csv target o: json = [s.ship]");
            assertThat(run("run", read, "--in", address + "/open", "--quiet")).isZero();
            assertThat(run("run", read, "--in", address + "/closed?key=geheim")).isEqualTo(ExitCode.FILE);
            assertThat(err.toString(StandardCharsets.UTF_8)).contains("/closed").doesNotContain("geheim");
            String connections = file(
                    "web.properties",
                    "ships.url = " + address
                            + "/closed\nships.header.Authorization = Bearer s3cret\nships.timeout = 9\n");
            assertThat(run("run", read, "--in", "ships", "--connections", connections))
                    .isZero();
        } finally {
            server.stop(0);
        }
    }

    @ParameterizedTest
    @DisplayName("properties that an address does not have are told")
    @CsvSource({"timeout, soon, ships.timeout", "heder.X, y, ships.heder.X"})
    void wrongWeb(String key, String value, String told) throws IOException {
        Path connections =
                Path.of(file("web.properties", "ships.url = http://x.example.org\nships." + key + " = " + value));
        assertThatThrownBy(() -> Connections.of(connections, Map.of()).web("ships"))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().value()).isEqualTo(told));
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
        assertThatThrownBy(() -> Connections.of(connections, Map.of()))
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
        Connections known = Connections.of(connections, Map.of("URL", url(), "SECRET", "$1"));
        assertThat(known.database("harbour")).isPresent();
        assertThat(known.database("harbour.csv")).isEmpty();
    }
}
