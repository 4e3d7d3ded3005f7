package dev.morphema.csv;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.TargetFormat;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;

/** Writes CSV: RFC 4180, but with a line feed at the end of each line unless the mapping says otherwise. */
public final class CsvTarget implements TargetFormat {
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
                OptionSpec.choice("line-end", "lf", "crlf"),
                OptionSpec.of("bom", Form.SWITCH),
                OptionSpec.of("encoding", Form.ENCODING));
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
