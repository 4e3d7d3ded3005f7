package dev.morphema.benchmarks;

import java.util.List;
import java.util.Map;

/** What is converted, and how large its inputs are for each megabyte that is asked for. */
enum Workload {
    S1("CSV to JSON, a date and a decimal reformatted", "rows", "gauges.csv"),
    S2("JSON Lines to CSV, a look-up and two computed decimals", "rows", "cargo.jsonl"),
    S3("XML records to JSON Lines", "doc", "calls.xml"),
    S4("JSON array to XML with attributes", "bookings", "bookings.json"),
    S5("CSV to CSV, a choice in a decimal", "rows", "unsorted.csv"),
    G1("neighbours grouped three deep, with totals", "rows", "sorted.csv"),
    G2("100,000 groups in any order, with totals", "rows", "unsorted.csv"),
    G3("a group by in a group by, of which only counts come out", "visits", "visits.csv"),
    G4("neighbours whose members are written out, a let before they are grouped", "rows", "sorted.csv"),
    G5("groups in any order whose members are written out, a let before", "rows", "unsorted.csv"),
    J1("two sources joined by a key", Map.of("lines", "unsorted.csv", "bills", "bills.csv"));

    private final String title;
    private final Map<String, String> inputs;

    Workload(String title, String source, String input) {
        this(title, Map.of(source, input));
    }

    Workload(String title, Map<String, String> inputs) {
        this.title = title;
        this.inputs = inputs;
    }

    String title() {
        return title;
    }

    /** {@return the file of each source} */
    Map<String, String> inputs() {
        return inputs;
    }

    /**
     * {@return the megabytes of heap that each contender gets}; a join keeps one of its sides, and
     * groups their members.
     */
    int heap() {
        return this == J1 || this == G5 ? 3_000 : 512;
    }

    List<String> files() {
        return inputs.values().stream().sorted().toList();
    }
}
