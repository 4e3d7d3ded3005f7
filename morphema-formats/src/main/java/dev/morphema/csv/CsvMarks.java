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
        return (delimiter + quote).chars().anyMatch(mark -> mark == '\n' || mark == '\r')
                ? "A line end is neither a delimiter nor a quote."
                : null;
    }
}
