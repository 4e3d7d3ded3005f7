package dev.morphema.csv;

import dev.morphema.format.FieldGroup;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.formats.ByteSink;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Writes one CSV document: the list of its records. An absent cell is empty, an empty text is a
 * pair of quotes.
 */
final class CsvDocumentWriter implements DocumentWriter {
    private final CsvRows rows;
    private final Map<String, Integer> columns = new HashMap<>();
    /** For each column the name that it was last asked for by. */
    private final @Nullable FieldName[] names;

    private final @Nullable Value[] row;
    /** For each cell that is there as bytes the record it is a field of, and the slot of that. */
    private final @Nullable RecordValue[] records;

    private final int[] slots;
    private int depth;
    /** At the last mark, where no row is begun. */
    private int markedDepth;

    private int column;

    CsvDocumentWriter(OutputStream out, Document document) throws IOException {
        Options options = document.options();
        Charset charset = options.encoding();
        char delimiter = options.text("delimiter", ",").charAt(0);
        char quote = options.text("quote", "\"").charAt(0);
        boolean crlf = options.text("line-end", "lf").equals("crlf");
        if (options.isOn("bom", false)) {
            out.write("\uFEFF".getBytes(charset));
        }
        rows = charset.equals(StandardCharsets.UTF_8) && delimiter < 0x80 && quote < 0x80
                ? new ByteRows(out, delimiter, quote, ByteSink.bytes(crlf ? "\r\n" : "\n"))
                : new LibraryRows(out, charset, delimiter, quote, crlf);
        List<String> header = document.columns();
        names = new FieldName[header.size()];
        row = new Value[header.size()];
        records = new RecordValue[row.length];
        slots = new int[row.length];
        for (int i = 0; i < row.length; i++) {
            columns.put(header.get(i), i);
        }
        if (options.isOn("header", true)) {
            rows.write(header.stream().map(TextValue::of).toArray(Value[]::new));
        }
    }

    @Override
    public void beginRecord() {
        if (depth++ > 0) {
            throw nested();
        }
        Arrays.fill(row, null);
        Arrays.fill(records, null);
        column = -1;
    }

    @Override
    public void endRecord() {
        depth--;
        rows.write(row, records, slots);
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
        // Rows mostly have their fields in the order of the columns, and each time by the same
        // object as name.
        int next = column + 1;
        if (next < names.length && names[next] == name) {
            column = next;
            return;
        }
        Integer known = columns.get(name.local());
        if (known == null) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This record has a field that is no column of the target.")
                            .withValue(name.local())
                            .withHelp("leave it out by copy … without or only; or name all columns: columns = [ … ]"));
        }
        column = known;
        names[known] = name;
    }

    @Override
    public void value(Value value) {
        if (depth == 0) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITABLE,
                            "A row is a record, this is " + value.kind().words() + ".")
                    .withHelp("give the value a column: { name = … }"));
        }
        row[column] = value;
        records[column] = null;
    }

    @Override
    public int fields(FieldGroup group, RecordValue record, int[] slots, int from) {
        int i = from;
        // What must be converted is converted now: a row is written when it is complete, and then
        // nobody knows whose
        // rule it was.
        while (depth > 0 && i < slots.length && slots[i] >= 0 && isText(record, slots[i])) {
            field(group.names().get(i));
            records[column] = record;
            this.slots[column] = slots[i++];
        }
        return i;
    }

    private static boolean isText(RecordValue record, int slot) {
        return record.isBytes(slot) && record.layout().converter(slot) == null;
    }

    private static ProblemException nested() {
        return new ProblemException(Problem.error(Code.NOT_WRITABLE, "A cell holds one value, this is a record."));
    }

    @Override
    public boolean mark() {
        markedDepth = depth;
        return rows.mark();
    }

    @Override
    public void rewind() {
        rows.rewind();
        depth = markedDepth;
    }

    @Override
    public void finish() throws IOException {
        rows.flush();
    }
}
