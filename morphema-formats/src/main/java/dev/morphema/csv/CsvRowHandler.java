package dev.morphema.csv;

import de.siegmar.fastcsv.reader.AbstractBaseCsvCallbackHandler;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.Projection;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.PassingRecord;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.nio.charset.CharacterCodingException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Makes a record of the cells that the parser finds; makes none of cells that nobody wants. */
final class CsvRowHandler extends AbstractBaseCsvCallbackHandler<Value> {
    private static final int NOT_WANTED = -1;

    /** Beyond so many columns memory is spared. */
    private static final int MANY_COLUMNS = 1_000;

    private static final int LEAST_REMEMBERED = 2;

    private final String input;
    private final Limits limits;
    private final int mostColumns;
    private final long skippedLines;
    private final boolean trim;
    private final boolean blankIsAbsent;

    /** Before the first record: the cells of the header. */
    private final List<String> header = new ArrayList<>();

    private boolean begun;
    private @Nullable Projection projection;
    private Layout layout = Layout.EMPTY;
    /** Grow with the longest row if there are no names. */
    private Column[] columns = new Column[0];

    /** The numbers of the columns that become fields. */
    private int[] wanted = new int[0];

    private final CellTexts texts;
    private final int textsOfColumn;

    private boolean named;
    /** How many records there were before the row at hand. */
    private long number;
    /** Whether the row has cells, as a line with nothing on it has not; that is no record. */
    private boolean filled;

    private long line;
    /** Whether two columns have the same name, so that a field can have two values. */
    private boolean repeated;

    /** The values of the row at hand; null as long as it has only bytes. */
    private @Nullable Value @Nullable [] cells;
    /** The cells that are taken as bytes. */
    private FieldBytes.Row bytes = new FieldBytes.Row(0);

    private final PassingRecord passing = new PassingRecord(this::origin);
    /** The slots of cells that were read as their declared type. */
    private long converted;

    private RecordBuilder record = RecordValue.builder(Layout.EMPTY, null);

    /**
     * What is done with the cells of a column.
     *
     * @param slot the field they become, or {@link #NOT_WANTED}
     * @param type what converts them; null if they stay texts
     * @param passes whether they are taken as bytes where that can be
     */
    private record Column(int slot, @Nullable Converter type, boolean passes, CellCache texts) {}

    /**
     * @param trim whether white space around cells without quotes is dropped
     * @param texts makes texts of bytes
     * @param textsOfColumn how many texts of one column to remember, a power of two from 2 on
     * @param limits of the number of columns
     */
    CsvRowHandler(
            String input,
            long skippedLines,
            boolean trim,
            boolean blankIsAbsent,
            CellTexts texts,
            int textsOfColumn,
            Limits limits) {
        this.limits = limits;
        this.mostColumns = limits.mostInt(Limit.FIELDS);
        this.texts = texts;
        this.textsOfColumn = textsOfColumn;
        this.input = input;
        this.skippedLines = skippedLines;
        this.trim = trim;
        this.blankIsAbsent = blankIsAbsent;
    }

    /**
     * {@return the cells of the row that was read first; a column without name gets one from its
     * number}
     */
    List<String> header() {
        List<String> names = new ArrayList<>();
        for (int i = 0; i < header.size(); i++) {
            String name = WhiteSpace.trim(header.get(i));
            names.add(name.isEmpty() ? "column" + (i + 1) : name);
        }
        return names;
    }

    /**
     * From now on rows become records with these columns; without names the columns are column1,
     * column2 …
     */
    void begin(Projection wanted, @Nullable List<String> names) {
        begun = true;
        projection = wanted;
        named = names != null;
        layout = wanted.layout();
        if (names != null) {
            addColumns(names);
        }
        bytes = new FieldBytes.Row(layout.size());
    }

    /**
     * {@return the row at hand, whose cells may be left where they stand}; not a record as long as
     * that is the header.
     */
    Value row(RowCells found) throws CharacterCodingException {
        bytes.beginPassing(found.bytes());
        takeRow(found);
        return buildRecord();
    }

    private void addColumns(List<String> names) {
        List<FieldName> fields = names.stream().map(FieldName::of).toList();
        if (projection != null && projection.keepsAll()) {
            layout = layout.withAll(fields);
        }
        int before = columns.length;
        columns = Arrays.copyOf(columns, before + fields.size());
        BitSet slots = new BitSet();
        Arrays.stream(wanted).forEach(column -> slots.set(columns[column].slot()));
        IntStream.Builder more = IntStream.builder();
        for (int i = before; i < columns.length; i++) {
            Column column = column(layout.slot(fields.get(i - before)));
            columns[i] = column;
            if (column.slot() != NOT_WANTED) {
                repeated |= slots.get(column.slot());
                slots.set(column.slot());
                more.add(i);
            }
        }
        wanted = IntStream.concat(Arrays.stream(wanted), more.build()).toArray();
    }

    private Column column(int slot) {
        Converter type = slot < 0 ? null : layout.converter(slot);
        boolean passes = slot >= 0
                && projection != null
                && !projection.keepsAll()
                && projection.passes(slot)
                && (type == null || type.prints() != null);
        int remembered = columns.length > MANY_COLUMNS ? LEAST_REMEMBERED : textsOfColumn;
        return new Column(slot < 0 ? NOT_WANTED : slot, type, passes, new CellCache(texts, remembered));
    }

    /** {@return the line on which the row at hand begins} */
    long nextLine() {
        return Math.max(1, line);
    }

    @Override
    protected void handleBegin(long startingLineNumber) {
        line = startingLineNumber + skippedLines;
        filled = false;
        if (!begun) {
            header.clear();
        } else if (repeated) {
            record = RecordValue.builder(layout, new Origin(input, number + 1, line));
        } else {
            beginCells();
        }
    }

    private void beginCells() {
        cells = null;
        converted = 0;
    }

    @Override
    protected void handleField(int column, char[] buffer, int offset, int length, boolean quoted) {
        filled = true;
        if (column >= mostColumns) {
            throw limits.exceeded(Limit.FIELDS, InputLocation.at(input, nextLine(), 0));
        }
        if (column >= columns.length || columns[column].slot() != NOT_WANTED) {
            take(column, TextValue.of(new String(buffer, offset, length)), quoted);
        }
    }

    /**
     * Takes the cells of a row.
     *
     * @throws CharacterCodingException if the bytes are no characters, also of cells that nobody
     *     wants
     */
    private void takeRow(RowCells cells) throws CharacterCodingException {
        filled = true;
        if (!begun || repeated || cells.count() > columns.length) {
            takeAll(cells);
        } else {
            takeWanted(cells);
            if (!cells.areAscii()) {
                checkUnwanted(cells);
            }
        }
    }

    private void takeAll(RowCells cells) throws CharacterCodingException {
        for (int column = 0; column < cells.count(); column++) {
            take(column, text(column, cells), cells.isQuoted(column));
        }
    }

    private void takeWanted(RowCells cells) throws CharacterCodingException {
        for (int column : wanted) {
            if (column < cells.count()) {
                take(column, cells);
            }
        }
    }

    /** Reads the cells that nobody wants, whose bytes might be no characters. */
    private void checkUnwanted(RowCells cells) throws CharacterCodingException {
        for (int column = 0; column < cells.count(); column++) {
            if (columns[column].slot() == NOT_WANTED && !cells.isAscii(column)) {
                texts.check(cells.bytes(), cells.start(column), cells.end(column));
            }
        }
    }

    private TextValue text(int column, RowCells cells) throws CharacterCodingException {
        if (cells.hasDoubled(column)) {
            cells.undouble(column);
        }
        return texts.text(cells.bytes(), cells.start(column), cells.end(column));
    }

    /** Takes a cell that is wanted. */
    private void take(int number, RowCells cells) throws CharacterCodingException {
        Column column = columns[number];
        if (!column.passes() || !cells.addTo(bytes, column.slot(), number)) {
            takeOther(number, cells);
        }
    }

    private void takeOther(int number, RowCells cells) throws CharacterCodingException {
        if (cells.hasDoubled(number)) {
            cells.undouble(number);
        }
        int from = cells.start(number);
        int to = cells.end(number);
        if (from == to) {
            put(columns[number].slot(), cell(TextValue.EMPTY, cells.isQuoted(number)));
        } else {
            takeOther(columns[number], cells.bytes(), from, to, cells.isAscii(number));
        }
    }

    private void takeOther(Column column, byte[] all, int from, int to, boolean ascii) throws CharacterCodingException {
        if (column.passes()
                && (ascii
                        ? bytes.plain(column.slot(), all, from, to)
                        : column.type() == null
                                && texts.areUtf8(all, from, to)
                                && bytes.text(column.slot(), all, from, to))) {
            return;
        }
        if (ascii && column.type() != null) {
            Value value = column.type().read(all, from, to);
            if (value != null) {
                put(column.slot(), value);
                converted |= RecordValue.bit(column.slot());
                return;
            }
        }
        put(column.slot(), column.texts().text(all, from, to));
    }

    private void put(int slot, Value value) {
        @Nullable Value[] all = cells;
        if (all == null) {
            all = new Value[layout.size()];
            cells = all;
        }
        all[slot] = value;
    }

    /** Takes the text of a cell. */
    private void take(int column, TextValue text, boolean quoted) {
        if (!begun) {
            header.add(text.text());
            return;
        }
        if (column >= columns.length) {
            if (named) {
                refuseExtra(text.text());
                return;
            }
            addColumnsFor(column);
            cells = cells == null ? null : Arrays.copyOf(cells, layout.size());
        }
        int slot = columns[column].slot();
        if (slot == NOT_WANTED) {
            return;
        }
        Value value = cell(text, quoted);
        if (!repeated) {
            put(slot, value);
        } else if (value != Missing.ABSENT) {
            record.add(slot, value);
        }
    }

    /** Adds columns up to one, and more where there are many: a row may have any number. */
    private void addColumnsFor(int column) {
        int end = columns.length < MANY_COLUMNS ? column + 1 : Math.max(column + 1, 2 * columns.length);
        addColumns(IntStream.rangeClosed(columns.length + 1, end)
                .mapToObj(i -> "column" + i)
                .toList());
    }

    private Value cell(TextValue cell, boolean quoted) {
        TextValue text = trim && !quoted ? TextValue.of(WhiteSpace.trim(cell.text())) : cell;
        return text.length() == 0 && !quoted && blankIsAbsent ? Missing.ABSENT : text;
    }

    private void refuseExtra(String text) {
        if (!WhiteSpace.isBlank(text)) {
            // A header of one cell does not have the delimiter that the source says.
            String other = OtherThanCsv.proposal(header(), "");
            throw new ProblemException(
                    Problem.error(
                                    Code.BAD_CSV,
                                    "This row has more cells than there are columns: " + columns.length + ".")
                            .in(new InputLocation(input, number + 1, line, 0, null, null))
                            .withValue(text)
                            .withHelp(
                                    other != null
                                            ? other
                                            : "a delimiter inside a cell needs quotes around the cell; more columns are named by columns = [ … ]"));
        }
    }

    @Override
    protected Value buildRecord() {
        if (!begun || !filled) {
            return RecordValue.EMPTY;
        }
        number++;
        return repeated ? record.build() : built();
    }

    /** {@return where the row at hand stands} */
    Origin origin() {
        return new Origin(input, number, line);
    }

    private RecordValue built() {
        FieldBytes found = bytes.take();
        return cells == null && found != null && found.isPassing()
                ? passing.next(layout, found)
                : RecordValue.of(layout, cells, found, origin(), converted);
    }
}
