package dev.morphema.jdbc;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import java.io.OutputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Writes rows into a table of a database; where the output is a file instead, the statements that
 * would.
 */
public final class SqlTarget implements TargetFormat {
    static final String NAME = "sql";

    private static final String TABLE = "table";
    private static final String WRITE = "write";
    private static final String KEY = "key";

    /** What becomes of a record. */
    enum Write {
        /** A new row. */
        INSERT,
        /** Another content of the row that has its key, which must be there. */
        UPDATE,
        /** Another content of the row that has its key or, where there is none, a new row. */
        MERGE
    }

    /** How the records of a target are written. */
    record Settings(String table, Write write, List<String> keys) {
        static Settings of(Options options) {
            return new Settings(
                    options.text(TABLE).orElseThrow(),
                    Write.valueOf(options.text(WRITE, "insert").toUpperCase(java.util.Locale.ROOT)),
                    options.texts(KEY).orElse(List.of()));
        }
    }

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of(TABLE, Form.TEXT),
                OptionSpec.choice(WRITE, "insert", "update", "merge"),
                OptionSpec.of(KEY, Form.TEXT_OR_TEXTS),
                OptionSpec.of("columns", Form.TEXTS));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        if (options.text(TABLE).isEmpty()) {
            return "A target of the format sql needs the option table: sql(table = \"call\").";
        }
        boolean keyed = options.texts(KEY).isPresent();
        if (Settings.of(options).write() == Write.INSERT) {
            return keyed ? "Only write = update and write = merge have a key." : null;
        }
        return keyed ? null : "This way of writing needs the columns that tell rows apart: key = \"id\".";
    }

    @Override
    public boolean readsBack() {
        return false;
    }

    @Override
    public Traits traits() {
        return new Traits(Root.RECORDS, true, false);
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) {
        SqlScript script = new SqlScript(Settings.of(document.options()), document.columns(), out);
        return new RowWriter(document.columns(), (column, value) -> value, script);
    }
}
