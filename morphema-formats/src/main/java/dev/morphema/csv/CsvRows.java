package dev.morphema.csv;

import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Writes the rows of CSV (RFC 4180). */
interface CsvRows {
    /**
     * Writes a row; null and values that are nothing are empty cells, an empty text is a pair of
     * quotes.
     */
    void write(@Nullable Value[] cells);

    /**
     * Writes a row of which some cells are there as bytes.
     *
     * @param cells the others; may be changed
     * @param records for each cell that is there as bytes the record it is a field of, else null
     * @param slots the slots of those fields
     */
    default void write(@Nullable Value[] cells, @Nullable RecordValue[] records, int[] slots) {
        for (int i = 0; i < cells.length; i++) {
            RecordValue record = records[i];
            if (record != null) {
                cells[i] = record.get(slots[i]);
            }
        }
        write(cells);
    }

    /** Remembers this place; says whether that can be done. */
    default boolean mark() {
        return false;
    }

    /** Goes back to the last mark. */
    default void rewind() {
        throw new IllegalStateException("there is no mark");
    }

    /** Hands all bytes to the stream. */
    void flush() throws IOException;
}
