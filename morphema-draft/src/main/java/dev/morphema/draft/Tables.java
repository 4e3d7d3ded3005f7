package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Tables that rules look up in: of a source by a key, and of codes. Not thread-safe. */
final class Tables {
    private static final int MOST_LOOKUPS = 40;

    /** Declarations by the names of the tables. */
    private final Map<String, String> declarations = new LinkedHashMap<>();

    private final Set<String> taken;

    /** @param taken names that tables cannot have; those of the tables are added */
    Tables(Set<String> taken) {
        this.taken = taken;
    }

    /** {@return the declarations of those tables that a text looks up in} */
    List<String> usedIn(String text) {
        List<String> used = new ArrayList<>();
        declarations.forEach((name, declaration) -> {
            if (Pattern.compile("\\b" + name + "\\[").matcher(text).find()) {
                used.add(declaration);
            }
        });
        return used;
    }

    /** {@return the name of a table with such a declaration, declared if it is not yet} */
    private String declare(String wish, String rest) {
        for (Map.Entry<String, String> known : declarations.entrySet()) {
            if (known.getValue().equals("table " + known.getKey() + " " + rest)) {
                return known.getKey();
            }
        }
        String name = Names.variable(wish, taken);
        declarations.put(name, "table " + name + " " + rest);
        return name;
    }

    /** {@return the name of a table that translates codes} */
    String codes(String about, Map<Cell, Cell> meanings) {
        String entries = meanings.entrySet().stream()
                .map(entry -> (Names.isPlain(entry.getKey().text())
                                ? entry.getKey().text()
                                : Texts.quoted(entry.getKey().text()))
                        + " = " + Texts.constant(entry.getValue()))
                .collect(Collectors.joining("  "));
        return declare(Names.singular(about) + " words", "{ " + entries + " }");
    }

    /**
     * {@return what can be looked up in other sequences by a value at hand}
     *
     * @param repeats sequences, of which those that a source has as a whole are looked up in
     * @param columns values at hand
     * @param around the sequences that are gone through around this place
     */
    List<Column> lookups(List<Repeat> repeats, List<Column> columns, Set<String> around) {
        List<Column> found = new ArrayList<>();
        for (Repeat repeat : repeats) {
            boolean whole = repeat.items().stream()
                            .allMatch(items -> items == repeat.items().get(0))
                    || repeat.items().size() == 1;
            if (!whole || around.contains(repeat.expression())) {
                continue;
            }
            List<Repeat.Values> values = repeat.values().stream()
                    .filter(each ->
                            each.cells().get(0).size() == repeat.items().get(0).size())
                    .toList();
            for (Repeat.Values key : values) {
                Map<String, Integer> rows = unique(key.cells().get(0));
                if (rows != null) {
                    columns.stream()
                            .filter(column -> isKey(column, rows.keySet()))
                            .forEach(column -> add(repeat, key, rows, column, values, found));
                }
            }
            if (found.size() > MOST_LOOKUPS * values.size()) {
                break;
            }
        }
        return found;
    }

    /** {@return the rows of each key, or null if it is none} */
    private static @Nullable Map<String, Integer> unique(List<@Nullable Cell> cells) {
        Map<String, Integer> rows = new HashMap<>();
        for (int row = 0; row < cells.size(); row++) {
            Cell cell = cells.get(row);
            if (Cell.filled(cell) == null
                    || rows.put(Objects.requireNonNull(cell).text(), row) != null) {
                return null;
            }
        }
        return rows.size() < 2 ? null : rows;
    }

    private static boolean isKey(Column column, Set<String> keys) {
        Set<String> distinct = new HashSet<>(column.distinct());
        int all = distinct.size();
        distinct.retainAll(keys);
        return all > 0 && distinct.size() * 2 >= all;
    }

    private void add(
            Repeat repeat,
            Repeat.Values key,
            Map<String, Integer> rows,
            Column column,
            List<Repeat.Values> values,
            List<Column> found) {
        String each = Names.variable(Names.singular(repeat.name()), new HashSet<>(taken));
        String table = null;
        for (Repeat.Values value : values) {
            if (value == key) {
                continue;
            }
            if (table == null) {
                table = declare(
                        Names.plural(Names.singular(repeat.name())) + " by " + key.name(),
                        "for " + each + " in " + repeat.expression() + " key " + each + key.step());
            }
            List<@Nullable Cell> cells = new ArrayList<>();
            for (Cell cell : column.cells()) {
                Integer row = cell == null ? null : rows.get(cell.text());
                cells.add(row == null ? null : value.cells().get(0).get(row));
            }
            found.add(new Column(
                    table + "[" + column.expression() + "]" + value.step(),
                    value.name() + " " + repeat.name(),
                    cells,
                    2));
        }
    }
}
