package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What of other sequences belongs to a turn, by a key that both have.
 *
 * @param repeats what belongs, by names of its own
 * @param lets the names, with their rules
 */
record Belonging(List<Repeat> repeats, Map<String, String> lets) {
    private static final int MOST = 8;

    /**
     * {@return what belongs to the turns of a scope}
     *
     * @param repeats of which the sequences that sources have as a whole count
     * @param columns the values at hand, of which those of records count
     * @param around the sequences that are gone through already
     * @param taken names that new ones may not hide
     */
    static Belonging find(
            Scope scope, List<Repeat> repeats, List<Column> columns, Set<String> around, Set<String> taken) {
        List<Repeat> found = new ArrayList<>();
        Map<String, String> lets = new LinkedHashMap<>();
        Set<String> records = new HashSet<>();
        scope.vars().stream()
                .filter(variable -> variable.form() == Var.Form.ONE || variable.form() == Var.Form.KEY)
                .forEach(variable -> records.add(variable.name()));
        for (Repeat repeat : records.isEmpty() ? List.<Repeat>of() : repeats) {
            boolean whole = repeat.items().stream()
                    .allMatch(items -> items == repeat.items().get(0));
            if (!whole
                    || around.contains(repeat.expression())
                    || repeat.items().get(0).size() < 2) {
                continue;
            }
            for (Repeat.Values key : repeat.values()) {
                for (Column column : columns) {
                    if (found.size() < MOST && records.contains(Aligner.root(column))) {
                        add(repeat, key, column, taken, found, lets);
                    }
                }
            }
        }
        return new Belonging(found, lets);
    }

    private static void add(
            Repeat repeat,
            Repeat.Values key,
            Column column,
            Set<String> taken,
            List<Repeat> found,
            Map<String, String> lets) {
        List<Item> all = repeat.items().get(0);
        List<@Nullable Cell> keys = key.cells().get(0);
        if (keys.size() != all.size()) {
            return;
        }
        Map<String, List<Item>> byKey = new HashMap<>();
        for (int i = 0; i < all.size(); i++) {
            String text = Cell.filled(keys.get(i));
            if (text != null) {
                byKey.computeIfAbsent(text, t -> new ArrayList<>()).add(all.get(i));
            }
        }
        List<List<Item>> items = new ArrayList<>();
        int some = 0;
        for (Cell cell : column.cells()) {
            List<Item> own = cell == null ? List.of() : byKey.getOrDefault(cell.text(), List.of());
            items.add(own);
            some += own.isEmpty() ? 0 : 1;
        }
        boolean unique = byKey.values().stream().allMatch(same -> same.size() == 1);
        if (some * 2 < items.size() || byKey.size() < 2 || unique) {
            return;
        }
        Set<String> names = new HashSet<>(taken);
        names.addAll(lets.keySet());
        String name = Names.variable(repeat.name() + " of " + Aligner.root(column), names);
        String each = Names.first(names, "row", "each", "other");
        lets.put(
                name,
                "(for " + each + " in " + repeat.expression() + " where " + each + key.step() + " == "
                        + column.expression() + ")");
        found.add(new Repeat(name, repeat.name(), items, 0.8));
    }
}
