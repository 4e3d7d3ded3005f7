package dev.morphema.csv;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Writes CSV: RFC 4180, but with a line feed at the end of each line unless the mapping says
 * otherwise.
 */
public final class CsvTarget implements TargetFormat {
    @Override
    public String name() {
        return "csv";
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("delimiter", Form.CHARACTER),
                OptionSpec.of("quote", Form.CHARACTER),
                OptionSpec.of("header", Form.SWITCH),
                OptionSpec.of("columns", Form.TEXTS),
                OptionSpec.choice("line-end", "lf", "crlf"),
                OptionSpec.of("bom", Form.SWITCH),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return CsvMarks.fault(options);
    }

    @Override
    public Traits traits() {
        return new Traits(Root.RECORDS, true, false);
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) throws IOException {
        return new CsvDocumentWriter(out, document);
    }
}
