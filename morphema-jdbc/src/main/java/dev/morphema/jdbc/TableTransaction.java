package dev.morphema.jdbc;

import dev.morphema.format.RecordOutput;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;

/** The rows that one run writes into a table. Not thread-safe. */
final class TableTransaction implements RecordOutput.Transaction {
    private final Connection connection;
    private final DocumentWriter writer;

    private TableTransaction(Connection connection, DocumentWriter writer) {
        this.connection = connection;
        this.writer = writer;
    }

    static TableTransaction open(Database database, Document document) throws IOException {
        SqlTarget.Settings settings = SqlTarget.Settings.of(document.options());
        Connection connection = database.connect();
        try {
            Table table = Table.find(connection, settings.table());
            List<Table.Column> columns = table.columns(document.columns(), settings.write() != SqlTarget.Write.UPDATE);
            TableRows rows = TableRows.of(connection, table, columns, settings, document.declared());
            return new TableTransaction(connection, new RowWriter(document.columns(), new Cells(columns), rows));
        } catch (SQLException e) {
            Database.close(connection);
            throw DatabaseFaults.refused(
                    Code.NOT_WRITABLE, "The database does not write to the table " + settings.table(), e);
        } catch (RuntimeException e) {
            Database.close(connection);
            throw e;
        }
    }

    @Override
    public DocumentWriter writer() {
        return writer;
    }

    @Override
    public void commit() throws IOException {
        try {
            connection.commit();
        } catch (SQLException e) {
            throw new IOException("the database does not take the rows: " + DatabaseFaults.words(e), e);
        }
    }

    @Override
    public void close() {
        try {
            connection.rollback();
        } catch (SQLException e) {
            // What is not committed when the connection closes is undone by the database.
        }
        Database.close(connection);
    }
}
