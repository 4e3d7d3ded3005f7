package dev.morphema.jdbc;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.standard.StandardFormats;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Reads the rows that a query gives. A file in place of the database has the rows themselves, as a
 * list in JSON or, if its name ends so, as {@code .csv}.
 */
public final class SqlSource implements SourceFormat {
    private static final String QUERY = "query";
    private static final String FETCH = "fetch";
    private static final int ROWS_AT_ONCE = 1_000;

    @Override
    public String name() {
        return SqlTarget.NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(OptionSpec.of(QUERY, Form.TEXT_OR_TEXTS), OptionSpec.of(FETCH, Form.COUNT));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return options.texts(QUERY).isEmpty()
                ? "A source of the format sql needs the option query: sql(query = \"select …\")."
                : null;
    }

    @Override
    public Set<String> parameters(Options options) {
        return options.texts(QUERY).isEmpty() ? Set.of() : query(options).parameters();
    }

    private static NamedQuery query(Options options) {
        return NamedQuery.parse(String.join("\n", options.texts(QUERY).orElseThrow()));
    }

    @Override
    public Traits traits() {
        return new Traits(false, true, false);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        if (input instanceof Database.DatabaseInput database) {
            return RowReader.open(
                    database.database(), query(options), projection, options, options.count(FETCH, ROWS_AT_ONCE));
        }
        // Rows that somebody has kept: for samples, and for tests without a database.
        String kept = input.name().endsWith(".csv") ? "csv" : "json";
        return StandardFormats.source(kept).open(input, projection, Options.NONE.within(options.limits()));
    }
}
