package dev.morphema.csv;

import de.siegmar.fastcsv.reader.AbstractBaseCsvCallbackHandler;
import dev.morphema.format.Projection;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Nothing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Makes a record of the cells that the parser finds; makes none of cells that nobody wants. */
final class CsvRowHandler extends AbstractBaseCsvCallbackHandler<Value> {
    private static final int NOT_WANTED = -1;

    private final String input;
    private final long skippedLines;
    private final boolean trim;
    private final boolean blankIsAbsent;

    /** Before the first record: the cells of the header. */
    private final List<String> header = new ArrayList<>();

    private boolean begun;
    private @Nullable Projection projection;
    private Layout layout = Layout.EMPTY;
    /** The slot of each column; grows with the longest row if there are no names. */
    private int[] slots = new int[0];
    /** What converts the cells of each column; null if they stay texts. */
    private @Nullable Converter[] types = new Converter[0];

    private boolean named;
    private long number;
    private long line;
    /** Whether two columns have the same name, so that a field can have two values. */
    private boolean repeated;

    private @Nullable Value[] cells = new Value[0];
    /** The slots of cells that were read as their declared type. */
    private long converted;

    private RecordValue.Builder record = RecordValue.builder();

    CsvRowHandler(String input, long skippedLines, boolean trim, boolean blankIsAbsent) {
        this.input = input;
        this.skippedLines = skippedLines;
        this.trim = trim;
        this.blankIsAbsent = blankIsAbsent;
    }

    /** {@return the cells of the row that was read first; a column without name gets one from its number} */
    List<String> header() {
        List<String> names = new ArrayList<>();
        for (int i = 0; i < header.size(); i++) {
            String name = WhiteSpace.trim(header.get(i));
            names.add(name.isEmpty() ? "column" + (i + 1) : name);
        }
        return names;
    }

    /** From now on rows become records with these columns; without names the columns are column1, column2 … */
    void begin(Projection wanted, @Nullable List<String> names) {
        begun = true;
        projection = wanted;
        named = names != null;
        layout = wanted.layout();
        if (names != null) {
            if (wanted.everything()) {
                layout = layout.withAll(names.stream().map(FieldName::of).toList());
            }
            names.forEach(this::addColumn);
        }
    }

    private void addColumn(String name) {
        FieldName field = FieldName.of(name);
        int slot = layout.slot(field);
        if (slot < 0 && projection != null && projection.everything()) {
            layout = layout.withAll(List.of(field));
            slot = layout.slot(field);
        }
        for (int other : slots) {
            repeated |= slot >= 0 && other == slot;
        }
        slots = Arrays.copyOf(slots, slots.length + 1);
        slots[slots.length - 1] = slot < 0 ? NOT_WANTED : slot;
        types = Arrays.copyOf(types, slots.length);
        types[slots.length - 1] = slot < 0 ? null : layout.converter(slot);
    }

    /** {@return the line on which the row at hand begins} */
    long nextLine() {
        return Math.max(1, line);
    }

    @Override
    protected void handleBegin(long startingLineNumber) {
        line = startingLineNumber + skippedLines;
        if (begun) {
            if (repeated) {
                record = RecordValue.builder(layout, new Origin(input, number + 1, line));
            } else {
                cells = new Value[layout.size()];
                converted = 0;
            }
        } else {
            header.clear();
        }
    }

    @Override
    protected void handleField(int column, char[] buffer, int offset, int length, boolean quoted) {
        if (column == 0) {
            countRow();
        }
        if (wants(column)) {
            take(column, TextValue.of(new String(buffer, offset, length)), quoted);
        }
    }

    /** The row at hand is a record: it has cells, as a line with nothing on it has not. */
    void countRow() {
        number += begun ? 1 : 0;
    }

    /** {@return whether the text of a cell is of use} */
    boolean wants(int column) {
        return !begun || column >= slots.length || slots[column] != NOT_WANTED;
    }

    /** Takes a cell of a declared type, if it is written in the common way; if not, its text is to be taken. */
    boolean takeTyped(int column, byte[] text, int from, int to) {
        Converter type = column < types.length ? types[column] : null;
        Value value = type == null ? null : type.read(text, from, to);
        if (value == null) {
            return false;
        }
        if (repeated) {
            record.add(slots[column], value);
        } else {
            cells[slots[column]] = value;
            converted |= RecordValue.bit(slots[column]);
        }
        return true;
    }

    /** Takes the text of a cell. */
    void take(int column, TextValue text, boolean quoted) {
        if (!begun) {
            header.add(text.text());
            return;
        }
        if (column >= slots.length) {
            if (named) {
                refuseExtra(text.text());
                return;
            }
            addColumn("column" + (column + 1));
            cells = Arrays.copyOf(cells, layout.size());
        }
        int slot = slots[column];
        if (slot == NOT_WANTED) {
            return;
        }
        Value value = cell(text, quoted);
        if (!repeated) {
            cells[slot] = value;
        } else if (value != Nothing.ABSENT) {
            record.add(slot, value);
        }
    }

    private Value cell(TextValue cell, boolean quoted) {
        TextValue text = trim && !quoted ? TextValue.of(WhiteSpace.trim(cell.text())) : cell;
        return text.length() == 0 && !quoted && blankIsAbsent ? Nothing.ABSENT : text;
    }

    private void refuseExtra(String text) {
        if (!WhiteSpace.isBlank(text)) {
            throw new ProblemException(
                    Problem.error(Code.BAD_CSV, "This row has more cells than there are columns: " + slots.length + ".")
                            .in(new InputLocation(input, number, line, 0, null, null))
                            .withValue(text)
                            .withHelp(
                                    "a delimiter inside a cell needs quotes around the cell; more columns are named by columns = [ … ]"));
        }
    }

    @Override
    protected Value buildRecord() {
        if (!begun) {
            return RecordValue.EMPTY;
        }
        return repeated ? record.build() : RecordValue.of(layout, cells, new Origin(input, number, line), converted);
    }
}
