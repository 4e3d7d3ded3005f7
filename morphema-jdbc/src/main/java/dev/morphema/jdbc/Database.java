package dev.morphema.jdbc;

import dev.morphema.format.Input;
import dev.morphema.format.RecordOutput;
import dev.morphema.format.TargetFormat.Document;
import java.io.IOException;
import java.io.InputStream;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Objects;
import java.util.Properties;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;

/**
 * A database that sources in the format {@code sql} are read from and targets in that format are
 * written to. Each source and target of a run has a connection of its own, which is closed at the
 * end. Immutable and safe for use by many threads if what gives the connections is.
 *
 * <pre>{@code
 * Database harbour = Database.of("harbour", dataSource);
 * mapping.run(Inputs.NONE.andInput("calls", harbour.input()), Outputs.NONE.andRecords("log",
 * harbour.output())); }</pre>
 */
public final class Database {
    private final String name;
    private final Connecting connecting;

    /** Opens connections. */
    @FunctionalInterface
    private interface Connecting {
        Connection connect() throws SQLException;
    }

    private Database(String name, Connecting connecting) {
        this.name = Objects.requireNonNull(name);
        this.connecting = connecting;
    }

    /**
     * {@return the database that a data source gives connections to}
     *
     * @param name what problems call it
     */
    public static Database of(String name, DataSource source) {
        Objects.requireNonNull(source);
        return new Database(name, source::getConnection);
    }

    /**
     * {@return the database at a JDBC address}; its driver must be on the class path
     *
     * @param name what problems call it; an address may hold a password
     * @param url begins with {@code jdbc:}
     * @param properties such as {@code user} and {@code password}, as the driver knows them
     */
    public static Database at(String name, String url, Properties properties) {
        Objects.requireNonNull(url);
        Properties own = new Properties();
        own.putAll(properties);
        return new Database(name, () -> DriverManager.getConnection(url, own));
    }

    /** {@return it as an input of sources in the format {@code sql}} */
    public Input input() {
        return new DatabaseInput(this);
    }

    /** {@return it as an output of targets in the format {@code sql}} */
    public RecordOutput output() {
        return new DatabaseOutput(this);
    }

    String name() {
        return name;
    }

    /** {@return a connection in which nothing is made last by itself} */
    Connection connect() throws IOException {
        @Nullable Connection connection = null;
        try {
            connection = connecting.connect();
            connection.setAutoCommit(false);
            return connection;
        } catch (SQLException e) {
            close(connection);
            throw new IOException(DatabaseFaults.words(e), e);
        }
    }

    /** Closes what was opened, perhaps nothing; what fails then is of no matter. */
    static void close(@Nullable AutoCloseable opened) {
        try {
            if (opened != null) {
                opened.close();
            }
        } catch (Exception e) {
            // Nothing depends on it any more.
        }
    }

    /** A database as the input of a source. */
    record DatabaseInput(Database database) implements Input {
        @Override
        public String name() {
            return database.name();
        }

        @Override
        public InputStream open() throws IOException {
            throw new IOException("this is a database, which is read by a source of the format sql");
        }

        @Override
        public boolean isRereadable() {
            return true;
        }

        @Override
        public boolean hasBytes() {
            return false;
        }
    }

    /** A database as the output of a target. */
    private record DatabaseOutput(Database database) implements RecordOutput {
        @Override
        public String name() {
            return database.name();
        }

        @Override
        public String format() {
            return SqlTarget.NAME;
        }

        @Override
        public Transaction open(Document document) throws IOException {
            return TableTransaction.open(database, document);
        }
    }
}
