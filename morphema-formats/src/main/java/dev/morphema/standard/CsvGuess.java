package dev.morphema.standard;

import dev.morphema.value.NumberValue;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Guesses the marks of CSV from its first rows, and whether the first of them has the names. */
final class CsvGuess {
    private static final List<Character> DELIMITERS = List.of(',', ';', '\t', '|');
    private static final int MOST_ROWS = 100;

    private CsvGuess() {}

    /** {@return the options that are not as they usually are} */
    static Map<String, Object> of(String text) {
        char best = ',';
        double bestScore = 0;
        for (char delimiter : DELIMITERS) {
            double score = score(rows(text, delimiter));
            if (score > bestScore) {
                best = delimiter;
                bestScore = score;
            }
        }
        Map<String, Object> options = new LinkedHashMap<>();
        if (best != ',') {
            options.put("delimiter", String.valueOf(best));
        }
        if (!hasHeader(rows(text, best))) {
            options.put("header", false);
        }
        return options;
    }

    /** How much a delimiter makes rows of the same number of cells, more than one. */
    private static double score(List<List<String>> rows) {
        if (rows.isEmpty() || rows.get(0).size() < 2) {
            return 0;
        }
        int cells = rows.get(0).size();
        long same = rows.stream().filter(row -> row.size() == cells).count();
        double share = (double) same / rows.size();
        return share * share * (1 + Math.min(cells, 50) / 50.0);
    }

    /** Names are all there, all different, and no numbers. */
    private static boolean hasHeader(List<List<String>> rows) {
        if (rows.isEmpty()) {
            return true;
        }
        List<String> first = rows.get(0);
        boolean names = first.stream()
                .allMatch(cell -> !cell.isBlank()
                        && NumberValue.parse(cell.strip().replace(',', '.')).isEmpty()
                        && !cell.strip().matches("[0-9]{1,4}[-./][0-9]{1,2}[-./][0-9]{1,4}.*"));
        return names && new HashSet<>(first).size() == first.size();
    }

    /** {@return the cells of the first rows, but for a last one that may be cut off} */
    private static List<List<String>> rows(String text, char delimiter) {
        List<List<String>> rows = new ArrayList<>();
        List<String> row = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < text.length() && rows.size() < MOST_ROWS; i++) {
            char c = text.charAt(i);
            if (c == '"') {
                quoted = !quoted;
            } else if (quoted || c != delimiter && c != '\n' && c != '\r') {
                cell.append(c);
            } else {
                row.add(cell.toString());
                cell.setLength(0);
                if (c != delimiter) {
                    addRow(row, rows);
                    row = new ArrayList<>();
                }
            }
        }
        if (rows.isEmpty() || !cell.isEmpty() && rows.size() < 2) {
            row.add(cell.toString());
            addRow(row, rows);
        }
        return rows;
    }

    private static void addRow(List<String> row, List<List<String>> rows) {
        boolean empty = row.size() == 1 && row.get(0).isEmpty();
        if (!empty) {
            rows.add(row);
        }
    }
}
