package dev.morphema.csv;

import dev.morphema.format.Options;
import org.jspecify.annotations.Nullable;

/** What the marks of CSV may be that a mapping chooses. */
final class CsvMarks {
    private CsvMarks() {}

    /** {@return why cells cannot be told apart by these marks, or null} */
    static @Nullable String fault(Options options) {
        String delimiter = options.text("delimiter", ",");
        String quote = options.text("quote", "\"");
        if (delimiter.isEmpty()) {
            return "The delimiter is empty.";
        }
        if (delimiter.contains(quote)) {
            return "The delimiter and the quote are the same character.";
        }
        String marks = delimiter + quote;
        return marks.indexOf('\n') >= 0 || marks.indexOf('\r') >= 0
                ? "A line end is neither a delimiter nor a quote."
                : null;
    }
}
