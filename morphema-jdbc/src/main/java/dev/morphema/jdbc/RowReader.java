package dev.morphema.jdbc;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;

/** Reads the rows of one query, as many at a time as are fetched. Not thread-safe. */
final class RowReader implements RecordReader {
    /** A column that is read. */
    private record Column(FieldName name, int slot, ColumnReader reader) {}

    private final String name;
    private final Connection connection;
    private final Projection projection;
    private final Options options;
    private final List<Column> columns = new ArrayList<>();
    private final List<FieldName> names = new ArrayList<>();
    private PreparedStatement statement;
    private ResultSet rows;
    private long row;

    private RowReader(String name, Connection connection, Projection projection, Options options) {
        this.name = name;
        this.connection = connection;
        this.projection = projection;
        this.options = options;
    }

    static RowReader open(Database database, NamedQuery query, Projection projection, Options options, int fetch)
            throws IOException {
        RowReader reader = new RowReader(database.name(), database.connect(), projection, options);
        try {
            reader.execute(query, fetch);
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

    private void execute(NamedQuery query, int fetch) throws SQLException {
        onlyRead();
        statement = connection.prepareStatement(query.sql(), ResultSet.TYPE_FORWARD_ONLY, ResultSet.CONCUR_READ_ONLY);
        statement.setFetchSize(fetch);
        for (int i = 0; i < query.names().size(); i++) {
            Binding.bind(
                    statement, i + 1, options.parameters().get(query.names().get(i)));
        }
        rows = statement.executeQuery();
        ResultSetMetaData metadata = rows.getMetaData();
        for (int i = 1; i <= metadata.getColumnCount(); i++) {
            FieldName column = FieldName.of(metadata.getColumnLabel(i));
            names.add(column);
            int slot = slot(column);
            if (slot >= 0 || projection.keepsAll()) {
                Projection used = slot >= 0 ? projection.child(slot) : projection.child(column);
                columns.add(new Column(column, slot, ColumnReader.of(metadata, i, used)));
            }
        }
    }

    /** Databases write names that are not quoted in capitals, or do not tell them from small ones. */
    private int slot(FieldName column) {
        int exact = projection.slot(column);
        for (int slot = 0; exact < 0 && slot < projection.layout().size(); slot++) {
            FieldName wanted = projection.layout().name(slot);
            if (wanted.local().equalsIgnoreCase(column.local())) {
                return slot;
            }
        }
        return exact;
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
    public Value next() throws IOException {
        try {
            if (!rows.next()) {
                return null;
            }
            row++;
            RecordValue.Builder record = RecordValue.builder(projection.layout(), new Origin(name, row, 0));
            for (Column column : columns) {
                Value value = value(column);
                if (column.slot() >= 0) {
                    record.set(column.slot(), value);
                } else {
                    record.put(column.name(), value);
                }
            }
            return record.build();
        } catch (SQLException e) {
            throw new ProblemException(
                    DatabaseFaults.refused(Code.NOT_READABLE, "The database gives no more rows", e)
                            .problem()
                            .in(location(null)),
                    e);
        }
    }

    private Value value(Column column) throws SQLException {
        try {
            return column.reader().value(rows);
        } catch (ProblemException e) {
            throw new ProblemException(e.problem().in(location(column.name().toString())), e);
        }
    }

    private InputLocation location(String field) {
        return new InputLocation(name, row, 0, 0, field, null);
    }

    @Override
    public void close() {
        Database.close(rows);
        Database.close(statement);
        Database.close(connection);
    }
}
