package dev.morphema.csv;

import dev.morphema.value.Value;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Writes the rows of CSV (RFC 4180). */
interface CsvRows {
    /** Writes a row; null and values that are nothing are empty cells, an empty text is a pair of quotes. */
    void write(@Nullable Value[] cells);

    /** Hands all bytes to the stream. */
    void flush() throws IOException;
}
