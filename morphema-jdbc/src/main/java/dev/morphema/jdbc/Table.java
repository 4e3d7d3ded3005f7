package dev.morphema.jdbc;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What a database says of a table: the columns that a target writes, as the table calls them. */
final class Table {
    /**
     * A column.
     *
     * @param name as the database knows it
     * @param type one of {@link java.sql.Types}
     * @param typeName what the database calls the type
     */
    record Column(String name, int type, String typeName) {}

    private final String name;
    private final String quote;
    private final Map<String, Column> byName = new LinkedHashMap<>();
    private final Set<String> required = new LinkedHashSet<>();

    private Table(String name, String quote) {
        this.name = name;
        this.quote = quote;
    }

    /**
     * {@return a table of a database}
     *
     * @param name perhaps with a schema and a point before it
     * @throws ProblemException if there is none
     */
    static Table find(Connection connection, String name) throws SQLException {
        DatabaseMetaData database = connection.getMetaData();
        String quote = String.valueOf(database.getIdentifierQuoteString()).strip();
        Table table = new Table(name, quote);
        try (Statement statement = connection.createStatement();
                ResultSet none = statement.executeQuery("SELECT * FROM " + name + " WHERE 1 = 0")) {
            ResultSetMetaData metadata = none.getMetaData();
            for (int i = 1; i <= metadata.getColumnCount(); i++) {
                String column = metadata.getColumnName(i);
                table.byName.put(column, new Column(column, metadata.getColumnType(i), metadata.getColumnTypeName(i)));
            }
            table.findRequired(database, metadata);
        } catch (SQLException e) {
            throw DatabaseFaults.refused(Code.NOT_WRITABLE, "The database has no table " + name + " to write to", e);
        }
        return table;
    }

    /** Which columns a new row must have a value for. */
    private void findRequired(DatabaseMetaData database, ResultSetMetaData metadata) throws SQLException {
        if (metadata.getColumnCount() == 0 || metadata.getTableName(1).isEmpty()) {
            return;
        }
        String schema = metadata.getSchemaName(1);
        try (ResultSet columns = database.getColumns(
                null, schema == null || schema.isEmpty() ? null : schema, metadata.getTableName(1), "%")) {
            while (columns.next()) {
                boolean filled = columns.getString("COLUMN_DEF") != null
                        || "YES".equals(columns.getString("IS_AUTOINCREMENT"))
                        || "YES".equals(columns.getString("IS_GENERATEDCOLUMN"));
                if ("NO".equals(columns.getString("IS_NULLABLE")) && !filled) {
                    required.add(columns.getString("COLUMN_NAME"));
                }
            }
        }
    }

    /**
     * {@return the columns that a target writes}
     *
     * @param names as the target calls them
     * @param whole whether new rows are made, so that nothing that they need may be left out
     * @throws ProblemException if the table has no such column, or needs another one
     */
    List<Column> columns(List<String> names, boolean whole) {
        List<Column> columns = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (String written : names) {
            Column column = find(written);
            if (column == null) {
                problems.add(Problem.error(Code.NOT_WRITABLE, "The table " + name + " has no column " + written + ".")
                        .withHelp(NearNames.proposal(written, byName.keySet()).orElse(null)));
            } else {
                columns.add(column);
            }
        }
        Set<String> missing = new LinkedHashSet<>(required);
        columns.forEach(column -> missing.remove(column.name()));
        if (whole && !missing.isEmpty() && problems.isEmpty()) {
            problems.add(Problem.error(
                            Code.REQUIRED_FIELD,
                            "A row of the table " + name + " needs a value for " + String.join(", ", missing) + ".")
                    .withHelp("write it: " + missing.iterator().next() + " = …"));
        }
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
        return columns;
    }

    /** Exactly, else without telling capitals from small letters, as SQL does. */
    private @Nullable Column find(String written) {
        Column exact = byName.get(written);
        return exact != null
                ? exact
                : byName.values().stream()
                        .filter(column -> column.name().equalsIgnoreCase(written))
                        .findFirst()
                        .orElse(null);
    }

    /** {@return the name of the table as statements write it} */
    String name() {
        return name;
    }

    /** {@return the name of a column as statements write it} */
    String quoted(Column column) {
        return quote.isEmpty() ? column.name() : quote + column.name().replace(quote, quote + quote) + quote;
    }
}
