package dev.morphema.csv;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Reads CSV: RFC 4180, with other marks if the mapping says so. */
public final class CsvSource implements SourceFormat {
    @Override
    public String name() {
        return "csv";
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("delimiter", Form.TEXT),
                OptionSpec.of("quote", Form.CHARACTER),
                OptionSpec.of("header", Form.SWITCH),
                OptionSpec.of("columns", Form.TEXTS),
                OptionSpec.of("skip", Form.COUNT),
                OptionSpec.of("trim", Form.SWITCH),
                OptionSpec.choice("blank", "absent", "text"),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return CsvMarks.fault(options);
    }

    @Override
    public Traits traits() {
        return new Traits(true, true, false);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new CsvRecordReader(input, projection, options);
    }
}
