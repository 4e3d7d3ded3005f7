package dev.morphema.jdbc;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import org.junit.jupiter.api.Assumptions;

/** A real database for one test, and what is in it. */
final class TestDatabase {
    /** The databases that tests run on. */
    enum Kind {
        H2,
        SQLITE,
        POSTGRESQL
    }

    /** One server for all tests; it stops with Java. */
    private static EmbeddedPostgres postgres;

    private static int count;

    private final String url;

    private TestDatabase(String url) {
        this.url = url;
    }

    static TestDatabase in(Path folder) throws IOException {
        return of(Kind.H2, folder);
    }

    static TestDatabase of(Kind kind, Path folder) throws IOException {
        return new TestDatabase(
                switch (kind) {
                    case H2 -> "jdbc:h2:" + folder.resolve("h2").toAbsolutePath();
                    case SQLITE -> "jdbc:sqlite:" + folder.resolve("sqlite.db").toAbsolutePath();
                    case POSTGRESQL -> newPostgres();
                });
    }

    private static synchronized String newPostgres() throws IOException {
        if (postgres == null) {
            try {
                postgres = EmbeddedPostgres.start();
            } catch (IOException | IllegalStateException e) {
                // Such as a machine that lets no server run for the user that builds.
                Assumptions.abort("PostgreSQL does not start here: " + e.getMessage());
            }
        }
        String name = "test" + count++;
        new TestDatabase(postgres.getJdbcUrl("postgres", "postgres")).run("CREATE DATABASE " + name);
        return postgres.getJdbcUrl("postgres", name);
    }

    Database database() {
        return Database.at("harbour", url, new Properties());
    }

    Connection connect() throws SQLException {
        return DriverManager.getConnection(url);
    }

    TestDatabase run(String... statements) {
        try (Connection connection = connect();
                Statement statement = connection.createStatement()) {
            for (String sql : statements) {
                statement.execute(sql);
            }
            return this;
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }

    /** {@return the rows of a query, each with its cells parted by commas} */
    List<String> rows(String query) {
        try (Connection connection = connect();
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(query)) {
            List<String> found = new ArrayList<>();
            while (rows.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                    cells.add(rows.getString(i));
                }
                found.add(String.join(",", cells));
            }
            return found;
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }
}
