package dev.morphema.draft;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** All paths that lead to values from the names of a scope. */
final class Columns {
    /** How many steps are gone down. */
    static final int DEEPEST = 6;

    private static final int MOST = 400;
    private static final double FARTHER = 0.3;
    /** What a source holds as a whole is seldom meant where one of its records is at hand. */
    private static final double WHOLE = 1.5;

    private final Scope scope;
    private final List<Column> columns = new ArrayList<>();
    private final List<Repeat> repeats = new ArrayList<>();

    Columns(Scope scope) {
        this.scope = scope;
        double distance = 0;
        for (int slot = scope.vars().size() - 1; slot >= 0; slot--) {
            // What was named last is nearest.
            Var variable = scope.vars().get(slot);
            add(variable, slot, distance);
            distance += variable.form() == Var.Form.ONE || variable.form() == Var.Form.GROUP ? FARTHER : 0;
        }
    }

    /** {@return the paths that give one value at most, the nearest first} */
    List<Column> single() {
        return columns;
    }

    /** {@return the paths that may give several records or values} */
    List<Repeat> repeated() {
        return repeats;
    }

    private void add(Var variable, int slot, double distance) {
        if (variable.form() == Var.Form.KEY || variable.form() == Var.Form.NUMBER) {
            boolean key = variable.form() == Var.Form.KEY;
            List<@Nullable Cell> cells = new ArrayList<>();
            scope.turns().forEach(turn -> cells.add((Cell) turn[slot]));
            columns.add(new Column(variable.name(), key ? variable.name() : Column.NUMBER, cells, key ? 0 : 0.5));
            return;
        }
        List<List<Item>> items = new ArrayList<>();
        for (Object[] turn : scope.turns()) {
            items.add(items(turn[slot]));
        }
        if (variable.isMany()) {
            double cost = variable.form() == Var.Form.RECORDS && distance > 0 ? WHOLE : distance;
            Repeat repeat = new Repeat(variable.name(), variable.about(), items, cost);
            repeats.add(repeat);
            if (variable.form() == Var.Form.GROUP) {
                addFirsts(repeat);
            }
            return;
        }
        collect(
                variable.name(),
                variable.name(),
                items,
                variable.form() == Var.Form.SOURCE && distance > 0 ? WHOLE : distance,
                0);
    }

    @SuppressWarnings("unchecked")
    static List<Item> items(@Nullable Object held) {
        return held == null ? List.of() : held instanceof Item item ? List.of(item) : (List<Item>) held;
    }

    /** What all members of each group agree on. */
    private void addFirsts(Repeat group) {
        for (Repeat.Values values : group.values()) {
            List<@Nullable Cell> firsts = new ArrayList<>();
            boolean agreed = true;
            for (List<@Nullable Cell> cells : values.cells()) {
                Cell first = cells.isEmpty() ? null : cells.get(0);
                firsts.add(first);
                agreed &= cells.stream().allMatch(cell -> Cell.sameText(cell, first));
            }
            if (values.step().chars().filter(c -> c == '.').count() <= 2) {
                columns.add(new Column(
                        "first(" + group.expression() + ")" + values.step(),
                        values.name(),
                        firsts,
                        group.cost() + (agreed ? 0.6 : 1.6)));
            }
        }
    }

    private void collect(String path, String name, List<List<Item>> places, double cost, int depth) {
        boolean values = places.stream().flatMap(List::stream).anyMatch(item -> item.cell() != null);
        // An element with others in it is no single value.
        boolean records = places.stream().flatMap(List::stream).anyMatch(Item::hasChildren);
        if (values && !records) {
            List<@Nullable Cell> cells = new ArrayList<>();
            for (List<Item> items : places) {
                cells.add(items.isEmpty() ? null : items.get(0).cell());
            }
            columns.add(new Column(path, name, cells, cost));
        }
        Set<String> names = new LinkedHashSet<>();
        places.forEach(items -> items.forEach(item -> names.addAll(item.fields().keySet())));
        if (depth == DEEPEST || columns.size() > MOST) {
            return;
        }
        addEntries(path, name, places, cost);
        for (String field : names) {
            List<List<Item>> below = new ArrayList<>();
            boolean several = false;
            for (List<Item> items : places) {
                List<Item> held = items.isEmpty() ? List.of() : items.get(0).field(field);
                several |= held.size() > 1 || !items.isEmpty() && items.get(0).isList(field);
                below.add(held);
            }
            String step = path + "." + Names.step(field);
            if (several) {
                repeats.add(new Repeat(step, field, below, cost));
            } else {
                collect(
                        step,
                        depth == 0 ? field : name.equals(field) ? field : joined(name, field, depth),
                        below,
                        cost,
                        depth + 1);
            }
        }
    }

    /** An object whose names are data is gone through as a list. */
    private void addEntries(String path, String name, List<List<Item>> places, double cost) {
        List<Item> records = places.stream().flatMap(List::stream).toList();
        if (Entries.areLikely(records)) {
            List<List<Item>> entries = places.stream()
                    .map(items -> items.isEmpty() ? List.<Item>of() : Entries.of(items.get(0)))
                    .toList();
            repeats.add(new Repeat("entries(" + path + ")", name, entries, cost + FARTHER));
        }
    }

    /** A field of a record within another is about both. */
    private static String joined(String around, String field, int depth) {
        return depth > 0 ? around + " " + field : field;
    }
}
