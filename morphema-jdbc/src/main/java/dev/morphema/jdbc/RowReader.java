package dev.morphema.jdbc;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.UsedFields;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Origin;
import dev.morphema.value.Value;
import java.io.IOException;
import java.sql.Connection;
import java.sql.ParameterMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Reads the rows of one query, as many at a time as are fetched. Not thread-safe. */
final class RowReader implements RecordReader {
    /** A column that is read, by the name that the mapping uses for it. */
    private record Column(FieldName name, ColumnReader reader) {}

    private final String name;
    private final Connection connection;
    private final NamedQuery query;
    private final Projection projection;
    private final List<Column> columns = new ArrayList<>();
    private final List<FieldName> names = new ArrayList<>();
    private @Nullable PreparedStatement statement;
    private @Nullable ResultSet rows;
    private long row;

    private RowReader(String name, Connection connection, NamedQuery query, Projection projection) {
        this.name = name;
        this.connection = connection;
        this.query = query;
        this.projection = projection;
    }

    static RowReader open(Database database, NamedQuery query, Projection projection, Options options, int fetch)
            throws IOException {
        RowReader reader = prepared(database, query, projection, options, fetch);
        reader.ask(options.parameters());
        return reader;
    }

    /** {@return the reader of a query that is not run yet} */
    static RowReader prepared(Database database, NamedQuery query, Projection projection, Options options, int fetch)
            throws IOException {
        RowReader reader = new RowReader(database.name(), database.connect(), query, projection);
        try {
            reader.prepare(fetch);
            return reader;
        } catch (SQLException e) {
            reader.close();
            throw DatabaseFaults.refused(Code.NOT_READABLE, "The database does not run this query", e);
        } catch (RuntimeException e) {
            reader.close();
            throw e;
        }
    }

    /** A hint, which not every driver takes. */
    private void onlyRead() {
        try {
            connection.setReadOnly(true);
        } catch (SQLException e) {
            // It reads without.
        }
    }

    private void prepare(int fetch) throws SQLException {
        onlyRead();
        PreparedStatement prepared =
                connection.prepareStatement(query.sql(), ResultSet.TYPE_FORWARD_ONLY, ResultSet.CONCUR_READ_ONLY);
        statement = prepared;
        prepared.setFetchSize(fetch);
    }

    /** {@return the kind that the database wants of a parameter, or null if it does not say} */
    @Nullable
    Kind kindOf(String parameter) {
        try {
            ParameterMetaData metadata = Objects.requireNonNull(statement).getParameterMetaData();
            int type = metadata.getParameterType(query.names().indexOf(parameter) + 1);
            return switch (type) {
                case Types.TINYINT,
                        Types.SMALLINT,
                        Types.INTEGER,
                        Types.BIGINT,
                        Types.NUMERIC,
                        Types.DECIMAL,
                        Types.REAL,
                        Types.FLOAT,
                        Types.DOUBLE -> Kind.NUMBER;
                case Types.CHAR, Types.VARCHAR, Types.LONGVARCHAR, Types.NCHAR, Types.NVARCHAR -> Kind.TEXT;
                default -> null;
            };
        } catch (SQLException e) {
            // Not every driver knows.
            return null;
        }
    }

    /** Runs the query, whose rows are next now. */
    void ask(Map<String, Value> parameters) throws IOException {
        try {
            Database.close(rows);
            PreparedStatement prepared = Objects.requireNonNull(statement);
            for (int i = 0; i < query.names().size(); i++) {
                Binding.bind(prepared, i + 1, parameters.get(query.names().get(i)));
            }
            ResultSet result = prepared.executeQuery();
            rows = result;
            if (names.isEmpty()) {
                describe(result.getMetaData());
            }
        } catch (SQLException e) {
            close();
            throw DatabaseFaults.refused(Code.NOT_READABLE, "The database does not run this query", e);
        } catch (RuntimeException e) {
            close();
            throw e;
        }
    }

    private void describe(ResultSetMetaData metadata) throws SQLException {
        boolean capitals = connection.getMetaData().storesUpperCaseIdentifiers();
        for (int i = 1; i <= metadata.getColumnCount(); i++) {
            FieldName column = FieldName.of(name(metadata.getColumnLabel(i), capitals));
            names.add(column);
            FieldName used = used(column);
            if (projection.keepsAll() || projection.slot(used) >= 0) {
                columns.add(new Column(used, ColumnReader.of(metadata, i, projection.child(used))));
            }
        }
    }

    /** A name that was not quoted is in capitals in some databases, in small letters in others. */
    private static String name(String label, boolean capitals) {
        return capitals && label.equals(label.toUpperCase(Locale.ROOT)) ? label.toLowerCase(Locale.ROOT) : label;
    }

    /** SQL does not tell capitals from small letters, so another column may be meant. */
    private FieldName used(FieldName column) {
        if (projection.keepsAll() || projection.slot(column) >= 0) {
            return column;
        }
        for (int slot = 0; slot < projection.layout().size(); slot++) {
            FieldName wanted = projection.layout().name(slot);
            if (wanted.local().equalsIgnoreCase(column.local())) {
                return wanted;
            }
        }
        return column;
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public List<FieldName> columns() {
        return List.copyOf(names);
    }

    @Override
    public @Nullable Value next() throws IOException {
        ResultSet result = Objects.requireNonNull(rows);
        try {
            if (!result.next()) {
                return null;
            }
            row++;
            UsedFields record = new UsedFields(projection, new Origin(name, row, 0));
            for (Column column : columns) {
                record.put(column.name(), value(column, result));
            }
            return record.build();
        } catch (SQLException e) {
            throw new ProblemException(
                    DatabaseFaults.problem(Code.NOT_READABLE, "The database gives no more rows", e)
                            .in(location(null)),
                    e);
        }
    }

    private Value value(Column column, ResultSet result) throws SQLException {
        try {
            return column.reader().value(result);
        } catch (ProblemException e) {
            throw new ProblemException(e.problem().in(location(column.name().toString())), e);
        }
    }

    private InputLocation location(@Nullable String field) {
        return new InputLocation(name, row, 0, 0, field, null);
    }

    @Override
    public void close() {
        Database.close(rows);
        Database.close(statement);
        Database.close(connection);
    }
}
