package dev.morphema.jdbc;

import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;

/** Makes rows of the events of a target. Not thread-safe. */
final class RowWriter implements DocumentWriter {
    /** Makes a value one of a column, or says why that cannot be. */
    @FunctionalInterface
    interface Columns {
        /** {@return the value as the column takes it} */
        Value fitting(int column, Value value);
    }

    /** Takes rows. */
    interface Rows {
        /** @param cells one for each column; absent where the record had none; the caller's */
        void row(Value[] cells);

        /**
         * After the last row.
         *
         * @throws IOException if what was written cannot be handed on
         */
        void finish() throws IOException;
    }

    private final List<String> names;
    private final Columns columns;
    private final Rows rows;
    private final Value[] cells;
    private boolean open;
    private int column;

    RowWriter(List<String> names, Columns columns, Rows rows) {
        this.names = names;
        this.columns = columns;
        this.rows = rows;
        this.cells = new Value[names.size()];
    }

    @Override
    public void beginRecord() {
        if (open) {
            throw refused("record");
        }
        open = true;
        Arrays.fill(cells, Missing.ABSENT);
    }

    @Override
    public void endRecord() {
        open = false;
        rows.row(cells);
    }

    @Override
    public void beginList() {
        if (open) {
            throw refused("list");
        }
    }

    private static ProblemException refused(String what) {
        return new ProblemException(
                Problem.error(Code.NOT_WRITABLE, "A column holds one value, this is a " + what + "."));
    }

    @Override
    public void endList() {
        // the end of the rows
    }

    @Override
    public void field(FieldName name) {
        column = names.indexOf(name.local());
        if (column < 0) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This record has a field that is no column of the target.")
                            .withValue(name.local())
                            .withHelp("leave it out by copy … without or only; or name all columns: columns = [ … ]"));
        }
    }

    @Override
    public void value(Value value) {
        if (!open) {
            throw new ProblemException(Problem.error(
                    Code.NOT_WRITABLE,
                    "A row is a record, this is " + value.kind().words() + "."));
        }
        cells[column] = columns.fitting(column, value);
    }

    @Override
    public void finish() throws IOException {
        rows.finish();
    }
}
