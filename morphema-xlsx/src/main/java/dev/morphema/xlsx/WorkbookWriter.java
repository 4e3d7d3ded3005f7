package dev.morphema.xlsx;

import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.jspecify.annotations.Nullable;

/** Writes one workbook. Not thread-safe. */
final class WorkbookWriter implements DocumentWriter {
    private static final int LONGEST_NAME = 31;

    private final OutputStream out;
    private final Options options;
    private final Path copy;
    private final OutputStream bytes;
    private final Workbook workbook;
    private final Set<String> sheetNames = new HashSet<>();
    private @Nullable SheetWriter sheet;
    /** The cells of the row that is open, by column; null outside of rows. */
    private @Nullable Map<String, Value> row;

    private @Nullable String field;
    /** Whether a record around all sheets is open. */
    private boolean ofSheets;

    WorkbookWriter(OutputStream out, Options options) throws IOException {
        this.out = out;
        this.options = options;
        this.copy = Files.createTempFile("morphema-", ".xlsx");
        this.bytes = new BufferedOutputStream(Files.newOutputStream(copy));
        this.workbook = new Workbook(bytes, "Morphema", null);
    }

    @Override
    public boolean writesMissing() {
        // The first row then has all columns.
        return true;
    }

    @Override
    public void beginList() {
        if (row != null || sheet != null) {
            throw refused("A cell holds one value, this is a list.", "join(…, \", \") makes a text of it");
        }
        begin(ofSheets && field != null ? field : options.text("sheet", "Sheet1"));
    }

    private void begin(String name) {
        boolean bad = name.isEmpty()
                || name.length() > LONGEST_NAME
                || name.chars().anyMatch(c -> "[]:*?/\\".indexOf(c) >= 0)
                || name.startsWith("'")
                || name.endsWith("'");
        if (bad) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A sheet cannot have this name.")
                    .withValue(name)
                    .withHelp("a name has 1 to 31 characters, and none of [ ] : * ? / \\"));
        }
        if (!sheetNames.add(name.toLowerCase(Locale.ROOT))) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "The workbook has a sheet of this name already.")
                            .withValue(name));
        }
        sheet = new SheetWriter(workbook.newWorksheet(name), options);
    }

    @Override
    public void endList() {
        if (sheet != null) {
            sheet.finish();
        }
        sheet = null;
    }

    @Override
    public void beginRecord() {
        if (row != null) {
            throw refused("A cell holds one value, this is a record.", "step down to one of its fields");
        }
        if (sheet != null) {
            row = new LinkedHashMap<>();
        } else if (ofSheets) {
            throw refused("A sheet is a list of rows, this is a record.", "name for … { … } makes a list");
        } else {
            ofSheets = true;
        }
    }

    @Override
    public void endRecord() {
        if (row != null && sheet != null) {
            sheet.row(row);
            row = null;
        }
    }

    @Override
    public void field(FieldName name) {
        field = name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT.local() : name.local();
    }

    @Override
    public void value(Value value) {
        if (row != null && field != null) {
            row.put(field, value);
        } else if (!value.isMissing() || sheet != null) {
            throw refused(
                    sheet == null
                            ? "A workbook is a list of rows or has sheets, this is "
                                    + value.kind().words() + "."
                            : "A row is a record, this is " + value.kind().words() + ".",
                    null);
        }
    }

    private static ProblemException refused(String message, @Nullable String help) {
        return new ProblemException(Problem.error(Code.NOT_WRITABLE, message).withHelp(help));
    }

    @Override
    public void abandon() {
        try {
            bytes.close();
            Files.deleteIfExists(copy);
        } catch (IOException e) {
            // a file in the system's temporary folder is all that is left
        }
    }

    @Override
    public void finish() throws IOException {
        try {
            if (sheetNames.isEmpty()) {
                begin(options.text("sheet", "Sheet1"));
                endList();
            }
            workbook.finish();
            workbook.close();
            bytes.close();
            UndatedCopy.write(copy, out);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}
