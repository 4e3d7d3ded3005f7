package dev.morphema.xlsx;

import dev.morphema.format.Limit;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.UsedFields;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import org.jspecify.annotations.Nullable;

/** Reads the rows of sheets, one after the other. Not thread-safe. */
final class SheetReader implements RecordReader {
    /** A column of the sheet. */
    private record Column(int index, FieldName name) {}

    private final WorkbookFile file;
    private final Projection projection;
    private final Options options;
    private final CellRange range;
    /** The first row that is read, the header or one of data. */
    private final int firstRow;
    /** Whether columns are called by their letters. */
    private final boolean byLetters;

    private final CellValue values;
    private final @Nullable FieldName sheetField;
    private final boolean severalSheets;
    private final Iterator<Sheet> sheets;
    private final List<FieldName> names = new ArrayList<>();
    private List<Column> columns = List.of();
    private @Nullable Sheet sheet;
    /** The cells whose value is repeated, or null. */
    private @Nullable MergedCells merged;

    private @Nullable Stream<Row> stream;
    private @Nullable Iterator<Row> rows;
    private long record;

    SheetReader(WorkbookFile file, Projection projection, Options options) throws IOException {
        this.file = file;
        this.projection = projection;
        this.options = options;
        CellRange given = options.text("range").map(CellRange::parse).orElse(null);
        this.range = given == null ? CellRange.ALL : given;
        this.values = new CellValue(file.isFrom1904());
        this.sheetField = options.text("sheet-field").map(FieldName::of).orElse(null);
        this.firstRow = range.firstRow() + options.count("skip", 0);
        this.byLetters =
                !options.isOn("header", true) && options.texts("columns").isEmpty();
        try {
            List<Sheet> chosen = sheets();
            this.severalSheets = chosen.size() > 1;
            this.sheets = chosen.iterator();
        } catch (ProblemException e) {
            file.close();
            throw e;
        }
    }

    /** The sheets that are named, of any name for a star; if none is, the first that is shown. */
    private List<Sheet> sheets() {
        List<Sheet> all = file.workbook().getSheets().toList();
        List<Sheet> shown = all.stream()
                .filter(each -> each.getVisibility() == SheetVisibility.VISIBLE)
                .toList();
        List<String> wanted = options.texts("sheet").orElse(List.of());
        if (wanted.isEmpty()) {
            return (shown.isEmpty() ? all : shown).stream().limit(1).toList();
        }
        List<Sheet> found = new ArrayList<>();
        for (String name : wanted) {
            List<Sheet> named = name.equals("*")
                    ? shown
                    : all.stream().filter(each -> each.getName().equals(name)).toList();
            if (named.isEmpty()) {
                List<String> known = all.stream().map(Sheet::getName).toList();
                throw new ProblemException(Problem.error(Code.BAD_WORKBOOK, "The workbook has no sheet " + name + ".")
                        .in(InputLocation.at(file.name(), 0, 0))
                        .withHelp(NearNames.proposal(name, known).orElse(null)));
            }
            found.addAll(named);
        }
        return found;
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public List<FieldName> columns() {
        return List.copyOf(names);
    }

    @Override
    public @Nullable Value next() throws IOException {
        try {
            for (Row row = nextRow(); row != null; row = nextRow()) {
                if (!isBlank(row)) {
                    record++;
                    return record(row);
                }
            }
            return null;
        } catch (ExcelReaderException e) {
            throw WorkbookFile.broken(file.name(), e);
        }
    }

    /** The next row of data, in whichever sheet; null behind the last. */
    private @Nullable Row nextRow() throws IOException {
        while (true) {
            if (rows == null) {
                if (!sheets.hasNext()) {
                    return null;
                }
                begin(sheets.next());
            }
            Row row = rowInRange();
            if (row != null) {
                return row;
            }
            end();
        }
    }

    private @Nullable Row rowInRange() {
        while (rows != null && rows.hasNext()) {
            Row row = rows.next();
            int index = row.getRowNum() - 1;
            if (merged != null) {
                merged.take(row, values);
            }
            if (index > range.lastRow()) {
                return null;
            }
            if (index >= firstRow) {
                return row;
            }
        }
        return null;
    }

    private void begin(Sheet next) throws IOException {
        sheet = next;
        merged = options.text("merged", "first").equals("repeat") ? file.merged(next.getName()) : null;
        Stream<Row> opened = next.openStream();
        stream = opened;
        rows = opened.iterator();
        List<String> named = options.texts("columns").orElse(null);
        columns = new ArrayList<>();
        if (named != null) {
            for (int i = 0; i < named.size(); i++) {
                add(range.firstColumn() + i, named.get(i));
            }
        } else if (!byLetters) {
            Row header = rowInRange();
            while (header != null && isBlank(header)) {
                header = rowInRange();
            }
            if (header != null) {
                readHeader(header);
            }
        }
        if (sheetField != null && !names.contains(sheetField)) {
            names.add(sheetField);
        }
    }

    private void readHeader(Row header) {
        Map<String, String> seen = new HashMap<>();
        for (int i = range.firstColumn(); i < end(header); i++) {
            Value name = values.of(header.getCell(i));
            if (name == Missing.ABSENT) {
                continue;
            }
            String text = name.toString().strip();
            String before = seen.putIfAbsent(text, CellRange.letters(i));
            if (before != null) {
                throw new ProblemException(Problem.error(
                                Code.BAD_WORKBOOK,
                                "Two columns of the sheet have the same name, " + before + " and "
                                        + CellRange.letters(i) + ".")
                        .in(location(header))
                        .withValue(text)
                        .withHelp("range = \"A:" + CellRange.letters(i - 1)
                                + "\" takes some of them; columns = [ … ] names them"));
            }
            add(i, text);
        }
    }

    private void add(int index, String name) {
        FieldName field = FieldName.of(name);
        if (!names.contains(field)) {
            names.add(field);
        }
        columns.add(new Column(index, field));
    }

    private void end() {
        if (stream != null) {
            stream.close();
        }
        rows = null;
        stream = null;
    }

    private boolean isBlank(Row row) {
        for (int i = range.firstColumn(); i < end(row); i++) {
            if (values.of(row.getCell(i)) != Missing.ABSENT) {
                return false;
            }
        }
        return true;
    }

    /** {@return behind the last cell of a row that is in the range} */
    private int end(Row row) {
        return (int) Math.min(row.getCellCount(), range.lastColumn() + 1L);
    }

    /** {@return the columns, with those that no row before had} */
    private List<Column> columnsOf(Row row) {
        for (int i = range.firstColumn() + columns.size(); byLetters && i < end(row); i++) {
            add(i, CellRange.letters(i));
        }
        return columns;
    }

    private Value record(Row row) {
        UsedFields built = new UsedFields(projection, new Origin(name(), record, row.getRowNum()));
        for (Column column : columnsOf(row)) {
            Value repeated = merged == null ? null : merged.at(column.index());
            Cell cell = column.index() < row.getCellCount() ? row.getCell(column.index()) : null;
            if ((cell != null || repeated != null) && built.uses(column.name())) {
                built.put(column.name(), repeated == null ? value(row, Objects.requireNonNull(cell)) : repeated);
            }
        }
        if (sheetField != null && sheet != null) {
            built.put(sheetField, TextValue.of(sheet.getName()));
        }
        return built.build();
    }

    private Value value(Row row, Cell cell) {
        String error = CellValue.error(cell);
        if (error != null) {
            throw new ProblemException(Problem.error(
                            Code.BAD_WORKBOOK, "The cell " + cell.getAddress() + " shows an error instead of a value.")
                    .in(location(row))
                    .withValue(error)
                    .withHelp("mend its formula, or leave the column out of the mapping"));
        }
        Value value = values.of(cell);
        if (value instanceof TextValue text && text.length() > options.limits().most(Limit.TEXT)) {
            throw options.limits().exceeded(Limit.TEXT, location(row));
        }
        return value;
    }

    private String name() {
        return severalSheets && sheet != null ? file.name() + ", sheet " + sheet.getName() : file.name();
    }

    private InputLocation location(Row row) {
        return new InputLocation(name(), record, row.getRowNum(), 0, null, null);
    }

    @Override
    public void close() throws IOException {
        end();
        file.close();
    }
}
