package dev.morphema.csv;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.TargetFormat;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
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

    /** A header is written once; what the new rows would stand under must be what they are. */
    @Override
    public Document continued(Input before, Document document) throws IOException {
        Options written = document.options();
        if (written.isOn("header", true)) {
            requireColumns(before, document);
        }
        return new Document(
                written.with("header", false).with("bom", false),
                document.columns(),
                document.prefixes(),
                document.declared());
    }

    private static void requireColumns(Input before, Document document) throws IOException {
        Options read = Options.NONE;
        for (String mark : List.of("delimiter", "quote", "encoding")) {
            if (document.options().text(mark).isPresent()) {
                read = read.with(mark, document.options().text(mark).get());
            }
        }
        List<String> columns;
        try (RecordReader reader = new CsvSource().open(before, Projection.everything(), read)) {
            reader.next();
            columns = reader.columns().stream().map(FieldName::local).toList();
        }
        if (!columns.equals(document.columns())) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITABLE,
                            "The file has other columns than the target: " + String.join(", ", columns) + ".")
                    .withValue(String.join(", ", document.columns()))
                    .withHelp("columns = [ … ] gives the target the columns of the file"));
        }
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) throws IOException {
        return new CsvDocumentWriter(out, document);
    }
}
