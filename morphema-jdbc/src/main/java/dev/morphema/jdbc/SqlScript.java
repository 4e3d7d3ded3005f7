package dev.morphema.jdbc;

import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/**
 * Writes the statements that bring rows into a table, as a script in UTF-8. Literals are those of
 * SQL:2016; a merge is an update, then an insert where there is no such row yet. Not thread-safe.
 */
final class SqlScript implements RowWriter.Rows {
    private final SqlTarget.Settings settings;
    private final List<String> columns;
    private final BufferedWriter out;

    SqlScript(SqlTarget.Settings settings, List<String> columns, OutputStream out) {
        this.settings = settings;
        this.columns = columns;
        this.out = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8));
    }

    @Override
    public void row(Value[] cells) {
        switch (settings.write()) {
            case INSERT -> write(insert(cells, "VALUES (", ")"));
            case UPDATE -> write(update(cells));
            case MERGE -> {
                if (settings.keys().size() < columns.size()) {
                    write(update(cells));
                }
                write(insert(
                        cells, "SELECT ", " WHERE NOT EXISTS (SELECT 1 FROM " + settings.table() + where(cells) + ")"));
            }
        }
    }

    private String insert(Value[] cells, String before, String behind) {
        List<String> literals = new ArrayList<>();
        for (Value cell : cells) {
            literals.add(literal(cell));
        }
        return "INSERT INTO " + settings.table() + " (" + String.join(", ", columns) + ") " + before
                + String.join(", ", literals) + behind;
    }

    private String update(Value[] cells) {
        List<String> changes = new ArrayList<>();
        for (int i = 0; i < cells.length; i++) {
            if (!settings.keys().contains(columns.get(i))) {
                changes.add(columns.get(i) + " = " + literal(cells[i]));
            }
        }
        return "UPDATE " + settings.table() + " SET " + String.join(", ", changes) + where(cells);
    }

    private String where(Value[] cells) {
        List<String> same = new ArrayList<>();
        for (String key : settings.keys()) {
            same.add(key + " = " + literal(cells[columns.indexOf(key)]));
        }
        return " WHERE " + String.join(" AND ", same);
    }

    private void write(String statement) {
        try {
            out.write(statement);
            out.write(";\n");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String literal(Value value) {
        if (value.isMissing()) {
            return "NULL";
        } else if (value instanceof NumberValue || value instanceof BooleanValue) {
            return value.toString();
        }
        String text = "'" + value.toString().replace("'", "''") + "'";
        if (value instanceof DateValue) {
            return "DATE " + text;
        } else if (value instanceof TimeValue) {
            return "TIME " + text;
        } else if (value instanceof DateTimeValue time) {
            String written = "'" + value.toString().replace('T', ' ').replace("Z", "+00:00") + "'";
            return (time.offset() == null ? "TIMESTAMP " : "TIMESTAMP WITH TIME ZONE ") + written;
        }
        return text;
    }

    @Override
    public void finish() throws IOException {
        out.flush();
    }
}
