package dev.morphema.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Writes one CSV document: the list of its records. An absent cell is empty, an empty text is a pair of quotes. */
final class CsvDocumentWriter implements DocumentWriter {
    private final Writer characters;
    private final CsvWriter csv;
    private final CharsetEncoder encoder;
    private final boolean unicode;
    private final Map<String, Integer> columns = new HashMap<>();
    private final @Nullable String[] row;
    private int depth;
    private int column;

    CsvDocumentWriter(OutputStream out, Document document) throws IOException {
        Options options = document.options();
        Charset charset = options.encoding();
        encoder = charset.newEncoder();
        unicode = charset.name().startsWith("UTF");
        characters = new BufferedWriter(new OutputStreamWriter(out, charset));
        if (options.isOn("bom", false)) {
            characters.write('\uFEFF');
        }
        csv = CsvWriter.builder()
                .fieldSeparator(delimiter(options.text("delimiter", ",")))
                .quoteCharacter(options.text("quote", "\"").charAt(0))
                .quoteStrategy(QuoteStrategies.EMPTY)
                .lineDelimiter(options.text("line-end", "lf").equals("crlf") ? LineDelimiter.CRLF : LineDelimiter.LF)
                .build(characters);
        List<String> names = document.columns();
        row = new String[names.size()];
        for (int i = 0; i < row.length; i++) {
            columns.put(names.get(i), i);
        }
        if (options.isOn("header", true)) {
            names.forEach(this::checkEncodable);
            csv.writeRecord(names);
        }
    }

    private static char delimiter(String text) {
        if (text.length() != 1) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "CSV is written with a delimiter of one character."));
        }
        return text.charAt(0);
    }

    @Override
    public void beginRecord() {
        if (depth++ > 0) {
            throw nested();
        }
        Arrays.fill(row, null);
    }

    @Override
    public void endRecord() {
        depth--;
        csv.writeRecord(row);
    }

    @Override
    public void beginList() {
        if (depth > 0) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A cell holds one value, this is a list.")
                    .withHelp("join(…, \"|\") makes one text of it"));
        }
    }

    @Override
    public void endList() {
        // the end of the document
    }

    @Override
    public void field(FieldName name) {
        Integer known = columns.get(name.local());
        if (known == null) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This record has a field that is no column of the target.")
                            .withValue(name.local())
                            .withHelp("name all columns in the target: columns = [ … ]"));
        }
        column = known;
    }

    @Override
    public void value(Value value) {
        if (depth == 0) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITABLE,
                            "A row is a record, this is " + value.kind().words() + ".")
                    .withHelp("give the value a column: { name = … }"));
        }
        String text = value.isNothing() ? null : value.toString();
        if (text != null) {
            checkEncodable(text);
        }
        row[column] = text;
    }

    @Override
    public void attribute(FieldName name, Value value) {
        field(name);
        value(value);
    }

    @Override
    public void text(Value value) {
        field(FieldName.of("text"));
        value(value);
    }

    private void checkEncodable(String text) {
        if (!unicode && !encoder.canEncode(text)) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This text has a character that the encoding of the target lacks.")
                            .withValue(text)
                            .withHelp("write the target in UTF-8"));
        }
    }

    private static ProblemException nested() {
        return new ProblemException(Problem.error(Code.NOT_WRITABLE, "A cell holds one value, this is a record."));
    }

    @Override
    public void finish() throws IOException {
        csv.flush();
        characters.flush();
    }
}
