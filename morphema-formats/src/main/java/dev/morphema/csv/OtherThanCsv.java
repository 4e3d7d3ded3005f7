package dev.morphema.csv;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Tells what an input seems to be that was given as CSV, by its header. */
final class OtherThanCsv {
    private static final List<String> DELIMITERS = List.of(",", ";", "\t", "|");

    /** How an archive begins, which a workbook is. */
    private static final String ARCHIVE = "PK\u0003\u0004";

    private static final String WORKBOOK = "the input looks like a workbook, whose format is xlsx";

    private OtherThanCsv() {}

    /**
     * {@return how an input can be read whose bytes are not those of a text}, or null
     *
     * @throws IOException if it cannot be read again
     */
    static @Nullable String proposal(Input input) throws IOException {
        if (!input.isRereadable()) {
            return null;
        }
        try (InputStream bytes = input.open()) {
            byte[] head = bytes.readNBytes(ARCHIVE.length());
            return new String(head, StandardCharsets.ISO_8859_1).equals(ARCHIVE) ? WORKBOOK : null;
        }
    }

    /**
     * {@return how the input can be read, or null if it may well be CSV}
     *
     * @param header the cells of the first row, or all of it as one
     */
    static @Nullable String proposal(List<String> header, String delimiter) {
        String first = header.isEmpty() ? "" : header.get(0);
        if (first.startsWith(ARCHIVE)) {
            return WORKBOOK;
        }
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
