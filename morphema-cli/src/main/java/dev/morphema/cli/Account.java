package dev.morphema.cli;

import dev.morphema.Mapping;
import dev.morphema.Result;
import java.io.PrintWriter;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Says in a few lines what a run has read and written. */
final class Account {
    /** A second has ten to the power of so many nanoseconds. */
    private static final int NANOS = 9;

    private static final int MOST_KEYS = 3;

    private final PrintWriter out;
    private final boolean values;

    /** @param values whether data may be shown */
    Account(PrintWriter out, boolean values) {
        this.out = out;
        this.values = values;
    }

    /**
     * Prints the account.
     *
     * @param mapping that was run
     * @param outputs where the targets were written, by name
     * @param nanos how long it took
     */
    void print(Mapping mapping, Result result, Map<String, String> outputs, long nanos) {
        result.read().forEach((source, count) -> out.println("read    " + source + ": " + counted(count, "record")));
        outputs.forEach((target, file) -> out.println("written " + target + ": "
                + counted(
                        result.written().getOrDefault(target, 0L),
                        mapping.hasManyDocuments(target) ? "document" : "record")
                + (file.equals("-") ? "" : " in " + Connections.shown(file))));
        result.leftOut()
                .forEach(left -> out.println(
                        "left    out by where on line " + left.rule().line() + ": " + counted(left.count(), "record")));
        result.missed()
                .forEach(missed -> out.println("missed  " + missed.table() + ": " + counted(missed.count(), "look-up")
                        + " without a row" + (values ? ", most often " + keys(missed.keys()) : "")));
        out.println("took    " + BigDecimal.valueOf(nanos, NANOS).setScale(2, RoundingMode.HALF_UP) + " s");
    }

    /** {@return what was read and written, for a line of a log} */
    static String inOneLine(Mapping mapping, Result result) {
        List<String> words = new ArrayList<>();
        result.read().forEach((source, count) -> words.add(source + " " + grouped(count)));
        String read = String.join(", ", words);
        words.clear();
        mapping.targets()
                .forEach(target ->
                        words.add(target + " " + grouped(result.written().getOrDefault(target, 0L))));
        return "read " + read + "; written " + String.join(", ", words);
    }

    private static String keys(Map<String, Long> keys) {
        return keys.entrySet().stream()
                .limit(MOST_KEYS)
                .map(key -> SourceLine.harmless(key.getKey()) + " (" + grouped(key.getValue()) + ")")
                .collect(Collectors.joining(", "));
    }

    static String counted(long count, String what) {
        return count == 1 ? "1 " + what : grouped(count) + " " + what + "s";
    }

    /** As {@code %,d} prints it; but formatters take a while to load. */
    static StringBuilder grouped(long count) {
        StringBuilder digits = new StringBuilder(Long.toString(count));
        for (int i = digits.length() - 3; i > 0; i -= 3) {
            digits.insert(i, ',');
        }
        return digits;
    }
}
