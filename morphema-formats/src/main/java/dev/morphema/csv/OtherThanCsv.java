package dev.morphema.csv;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Tells what an input seems to be that was given as CSV, by its header. */
final class OtherThanCsv {
    private static final List<String> DELIMITERS = List.of(",", ";", "\t", "|");

    private OtherThanCsv() {}

    /**
     * {@return how the input can be read, or null if it may well be CSV}
     *
     * @param header the cells of the first row, or all of it as one
     */
    static @Nullable String proposal(List<String> header, String delimiter) {
        String first = header.isEmpty() ? "" : header.get(0);
        if (first.startsWith("<")) {
            return "the input looks like XML, whose format is xml";
        }
        if (first.startsWith("{") || first.startsWith("[")) {
            return "the input looks like JSON: its format is json, or jsonl if each line is a record";
        }
        for (String other : DELIMITERS) {
            if (header.size() == 1 && first.contains(other) && !other.equals(delimiter)) {
                return "the first row seems to have another delimiter: csv(delimiter = \"" + written(other) + "\")";
            }
        }
        return null;
    }

    private static String written(String delimiter) {
        return delimiter.equals("\t") ? "\\t" : delimiter;
    }
}
