package dev.morphema.jdbc;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.problem.RuleLocation;
import dev.morphema.value.Value;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Writes rows into a table, many at a time. A row that the database refuses is looked for one by
 * one, so that it can be named. Not thread-safe.
 */
final class TableRows implements RowWriter.Rows {
    private static final int ROWS_AT_ONCE = 500;

    /** A statement with the column of each of its parameters. */
    private record Prepared(PreparedStatement statement, List<Integer> columns) {}

    private final Connection connection;
    private final boolean hasSavepoints;
    private final String table;
    private final List<Table.Column> columns;
    private final List<Integer> keys;
    private final @Nullable Prepared update;
    private final @Nullable Prepared insert;
    private final List<@Nullable Object[]> waiting = new ArrayList<>();
    /** The keys of those that wait: two rows of one key are not written at once. */
    private final Set<List<@Nullable Object>> waitingKeys = new HashSet<>();

    private final @Nullable RuleLocation declared;
    private long written;

    private TableRows(
            Connection connection,
            String table,
            List<Table.Column> columns,
            List<Integer> keys,
            @Nullable Prepared update,
            @Nullable Prepared insert,
            @Nullable RuleLocation declared)
            throws SQLException {
        this.declared = declared;
        this.connection = connection;
        this.hasSavepoints = connection.getMetaData().supportsSavepoints();
        this.table = table;
        this.columns = columns;
        this.keys = keys;
        this.update = update;
        this.insert = insert;
    }

    static TableRows of(
            Connection connection,
            Table table,
            List<Table.Column> columns,
            SqlTarget.Settings settings,
            @Nullable RuleLocation declared)
            throws SQLException {
        List<Integer> keys = keys(table, columns, settings);
        List<Integer> all = IntStream.range(0, columns.size()).boxed().toList();
        List<Integer> others = all.stream().filter(i -> !keys.contains(i)).toList();
        if (settings.write() == SqlTarget.Write.UPDATE && others.isEmpty()) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "All columns are keys, so there is nothing to update."));
        }
        Prepared update = null;
        if (settings.write() != SqlTarget.Write.INSERT) {
            // A merge of nothing but keys still has to know whether the row is there.
            List<Integer> changed = others.isEmpty() ? keys : others;
            List<Integer> parameters = new ArrayList<>(changed);
            parameters.addAll(keys);
            update = new Prepared(
                    connection.prepareStatement("UPDATE " + table.name() + " SET "
                            + assigned(table, columns, changed, ", ") + " WHERE "
                            + assigned(table, columns, keys, " AND ")),
                    parameters);
        }
        Prepared insert = settings.write() == SqlTarget.Write.UPDATE
                ? null
                : new Prepared(
                        connection.prepareStatement("INSERT INTO " + table.name() + " ("
                                + columns.stream().map(table::quoted).collect(Collectors.joining(", "))
                                + ") VALUES ("
                                + String.join(
                                        ", ", columns.stream().map(c -> "?").toList()) + ")"),
                        all);
        return new TableRows(connection, table.name(), columns, keys, update, insert, declared);
    }

    private static String assigned(Table table, List<Table.Column> columns, List<Integer> some, String between) {
        return some.stream().map(i -> table.quoted(columns.get(i)) + " = ?").collect(Collectors.joining(between));
    }

    /** {@return which of the written columns are keys} */
    private static List<Integer> keys(Table table, List<Table.Column> columns, SqlTarget.Settings settings) {
        List<Integer> keys = new ArrayList<>();
        for (Table.Column key : table.columns(settings.keys(), false)) {
            int written = columns.indexOf(key);
            if (written < 0) {
                throw new ProblemException(Problem.error(
                                Code.NOT_WRITABLE,
                                "The key " + key.name() + " is a column that the target does not write.")
                        .withHelp("write it: " + key.name() + " = …"));
            }
            keys.add(written);
        }
        return keys;
    }

    @Override
    public void row(Value[] cells) {
        @Nullable Object[] row = new Object[cells.length];
        for (int i = 0; i < row.length; i++) {
            row[i] = Binding.object(cells[i]);
        }
        List<@Nullable Object> key = new ArrayList<>();
        keys.forEach(column -> key.add(row[column]));
        if (key.contains(null)) {
            throw new ProblemException(Problem.error(
                    Code.NOT_WRITABLE,
                    "A row without a value for its key cannot be found in the table " + table + "."));
        }
        if (!keys.isEmpty() && !waitingKeys.add(key)) {
            write();
            waitingKeys.add(key);
        }
        waiting.add(row);
        if (waiting.size() >= ROWS_AT_ONCE) {
            write();
        }
    }

    @Override
    public void finish() {
        write();
    }

    private void write() {
        if (waiting.isEmpty()) {
            return;
        }
        try {
            Savepoint before = savepoint();
            try {
                writeAll();
                release(before);
            } catch (SQLException e) {
                throw refusedRow(before, e);
            }
        } catch (SQLException e) {
            throw refused("The database does not write to the table " + table, e);
        }
        written += waiting.size();
        waiting.clear();
        waitingKeys.clear();
    }

    private @Nullable Savepoint savepoint() throws SQLException {
        return hasSavepoints ? connection.setSavepoint() : null;
    }

    private void release(@Nullable Savepoint savepoint) {
        try {
            if (savepoint != null) {
                connection.releaseSavepoint(savepoint);
            }
        } catch (SQLException e) {
            // Some drivers cannot; the transaction's end does it for them.
        }
    }

    private void writeAll() throws SQLException {
        if (update == null) {
            batch(insert, waiting);
            return;
        }
        int[] counts = batch(update, waiting);
        List<@Nullable Object[]> missing = new ArrayList<>();
        for (int i = 0; i < counts.length; i++) {
            // A driver may not say how many rows a statement of a batch has changed.
            boolean there = counts[i] == Statement.SUCCESS_NO_INFO ? one(update, waiting.get(i)) > 0 : counts[i] > 0;
            if (!there && insert == null) {
                throw notThere(i);
            }
            if (!there) {
                missing.add(waiting.get(i));
            }
        }
        if (!missing.isEmpty()) {
            batch(insert, missing);
        }
    }

    private int[] batch(Prepared prepared, List<@Nullable Object[]> rows) throws SQLException {
        for (@Nullable Object[] row : rows) {
            bind(prepared, row);
            prepared.statement().addBatch();
        }
        try {
            return prepared.statement().executeBatch();
        } finally {
            prepared.statement().clearBatch();
        }
    }

    private int one(Prepared prepared, @Nullable Object[] row) throws SQLException {
        bind(prepared, row);
        return prepared.statement().executeUpdate();
    }

    private void bind(Prepared prepared, @Nullable Object[] row) throws SQLException {
        int index = 1;
        for (int column : prepared.columns()) {
            Binding.set(
                    prepared.statement(),
                    index++,
                    row[column],
                    columns.get(column).type());
        }
    }

    private ProblemException refused(String what, SQLException fault) {
        return new ProblemException(
                DatabaseFaults.problem(Code.NOT_WRITABLE, what, fault).at(declared), fault);
    }

    /** What the database says is no part of the message if it holds data. */
    private ProblemException refusedRow(int row, SQLException fault) {
        String words = DatabaseFaults.words(fault);
        boolean data =
                Arrays.stream(waiting.get(row)).anyMatch(cell -> cell != null && words.contains(cell.toString()));
        String refused = "The database refuses row " + (written + row + 1) + " of the table " + table;
        return new ProblemException(
                Problem.error(Code.NOT_WRITABLE, data ? refused + "." : refused + ": " + words + ".")
                        .at(declared)
                        .withValue(data ? words : shownKey(waiting.get(row))),
                fault);
    }

    private ProblemException notThere(int row) {
        return new ProblemException(Problem.error(
                        Code.NOT_WRITABLE,
                        "The table " + table + " has no row with the key of row " + (written + row + 1) + ".")
                .at(declared)
                .withValue(shownKey(waiting.get(row)))
                .withHelp("write = merge makes a new row of it"));
    }

    private String shownKey(@Nullable Object[] row) {
        List<Integer> shown = keys.isEmpty()
                ? IntStream.range(0, Math.min(1, row.length)).boxed().toList()
                : keys;
        return shown.stream()
                .map(column -> columns.get(column).name() + " = " + row[column])
                .collect(Collectors.joining(", "));
    }

    /** Goes through the rows that failed together, one by one, for the one that does. */
    private ProblemException refusedRow(@Nullable Savepoint before, SQLException together) throws SQLException {
        if (before == null) {
            return refused(
                    "The database refuses one of the rows " + (written + 1) + " to " + (written + waiting.size())
                            + " of the table " + table,
                    together);
        }
        connection.rollback(before);
        for (int i = 0; i < waiting.size(); i++) {
            try {
                boolean there = update != null && one(update, waiting.get(i)) > 0;
                if (!there && insert != null) {
                    one(insert, waiting.get(i));
                }
            } catch (SQLException e) {
                return refusedRow(i, e);
            }
        }
        return refused("The database does not write to the table " + table, together);
    }
}
