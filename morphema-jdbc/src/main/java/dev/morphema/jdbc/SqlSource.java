package dev.morphema.jdbc;

import dev.morphema.format.Input;
import dev.morphema.format.KeyedReader;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.standard.StandardFormats;
import java.io.IOException;
import java.util.LinkedHashSet;
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
    private static final String ON_DEMAND = "on-demand";
    private static final int ROWS_AT_ONCE = 1_000;

    @Override
    public String name() {
        return SqlTarget.NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of(QUERY, Form.TEXT_OR_TEXTS),
                OptionSpec.of(FETCH, Form.COUNT),
                OptionSpec.of(ON_DEMAND, Form.TEXT_OR_TEXTS));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        if (options.texts(QUERY).isEmpty()) {
            return "A source of the format sql needs the option query: sql(query = \"select …\").";
        }
        Set<String> named = query(options).parameters();
        return askedBy(options).stream()
                .filter(key -> !named.contains(key))
                .findFirst()
                .map(key -> "The query does not ask for :" + key + ", by which its rows are to be asked for on demand.")
                .orElse(null);
    }

    @Override
    public List<String> askedBy(Options options) {
        return options.texts(ON_DEMAND).orElse(List.of());
    }

    @Override
    public Set<String> parameters(Options options) {
        if (options.texts(QUERY).isEmpty()) {
            return Set.of();
        }
        Set<String> parameters = new LinkedHashSet<>(query(options).parameters());
        askedBy(options).forEach(parameters::remove);
        return parameters;
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
        return kept(input, projection, options);
    }

    /** Rows that somebody has kept: for samples, and for tests without a database. */
    private static RecordReader kept(Input input, Projection projection, Options options) throws IOException {
        String kept = input.name().endsWith(".csv") ? "csv" : "json";
        return StandardFormats.source(kept).open(input, projection, Options.NONE.within(options.limits()));
    }

    @Override
    public KeyedReader openKeyed(Input input, Projection projection, Options options) throws IOException {
        List<String> keys = askedBy(options);
        if (input instanceof Database.DatabaseInput database) {
            return AskedRows.open(
                    database.database(), query(options), keys, projection, options, options.count(FETCH, ROWS_AT_ONCE));
        }
        try (RecordReader rows = kept(input, projection, options)) {
            return KeptRows.of(rows, keys);
        }
    }
}
