package dev.morphema.csv;

import dev.morphema.format.BareRecord;
import dev.morphema.value.Layout;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A row as it stands in the input. Not thread-safe; used again for each row. */
final class BareRow implements BareRecord {
    private final Layout layout;
    private final int[] columns;
    private final int[] from;
    private final int[] to;
    private final CsvRowHandler rows;

    private @Nullable RowCells cells;
    private @Nullable RecordValue value;

    /**
     * @param columns for each slot of the layout the number of its column
     * @param rows makes the record of a row
     */
    BareRow(Layout layout, int[] columns, CsvRowHandler rows) {
        this.layout = layout;
        this.columns = columns;
        this.from = new int[columns.length];
        this.to = new int[columns.length];
        this.rows = rows;
    }

    /** Takes the cells of a row; says whether they all are as they must be. */
    boolean take(RowCells found) {
        cells = found;
        value = null;
        for (int slot = 0; slot < columns.length; slot++) {
            int column = columns[slot];
            if (column >= found.count() || !found.isAscii(column) || found.hasDoubled(column)) {
                return false;
            }
            from[slot] = found.start(column);
            to[slot] = found.end(column);
            if (from[slot] == to[slot]) {
                return false;
            }
        }
        return true;
    }

    @Override
    public Layout layout() {
        return layout;
    }

    private RowCells cells() {
        return Objects.requireNonNull(cells, "no row was taken yet");
    }

    @Override
    public byte[] bytes() {
        return cells().bytes();
    }

    @Override
    public int from(int slot) {
        return from[slot];
    }

    @Override
    public int to(int slot) {
        return to[slot];
    }

    @Override
    public Origin origin() {
        return rows.origin();
    }

    @Override
    public RecordValue value() {
        RecordValue known = value;
        if (known == null) {
            try {
                known = rows.made(cells());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            value = known;
        }
        return known;
    }
}
