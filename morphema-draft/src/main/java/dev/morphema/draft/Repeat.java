package dev.morphema.draft;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** An expression that gives several records or values at each turn of a scope. */
final class Repeat {
    private final String expression;
    private final String name;
    private final List<List<Item>> items;
    private final double cost;
    /** Found when they are first asked for: they are gone through for each field that is wanted. */
    private @Nullable List<Values> values;

    /**
     * @param expression as the mapping writes it
     * @param name what it is about
     * @param items what there is at each turn
     * @param cost how far-fetched it is
     */
    Repeat(String expression, String name, List<List<Item>> items, double cost) {
        this.expression = expression;
        this.name = name;
        this.items = items;
        this.cost = cost;
    }

    String expression() {
        return expression;
    }

    String name() {
        return name;
    }

    List<List<Item>> items() {
        return items;
    }

    double cost() {
        return cost;
    }

    /**
     * A field of all of them.
     *
     * @param step the path within an item, with its point; empty for the items themselves
     * @param cells the values at each turn
     */
    record Values(String step, String name, List<List<@Nullable Cell>> cells) {}

    /** {@return the paths to single values within the items} */
    List<Values> values() {
        if (values == null) {
            List<Values> found = new ArrayList<>();
            collect("", name, items, found, 0);
            values = List.copyOf(found);
        }
        return values;
    }

    private static void collect(String path, String name, List<List<Item>> places, List<Values> found, int depth) {
        boolean any = places.stream().flatMap(List::stream).anyMatch(item -> item.cell() != null);
        boolean records = places.stream().flatMap(List::stream).anyMatch(Item::hasChildren);
        if (any && !records) {
            List<List<@Nullable Cell>> cells = new ArrayList<>();
            for (List<Item> items : places) {
                List<@Nullable Cell> here = new ArrayList<>();
                items.forEach(item -> here.add(item.cell()));
                cells.add(here);
            }
            found.add(new Values(path, name, cells));
        }
        if (depth == Columns.DEEPEST) {
            return;
        }
        Set<String> names = new LinkedHashSet<>();
        places.forEach(items -> items.forEach(item -> names.addAll(item.fields().keySet())));
        for (String field : names) {
            List<List<Item>> below = new ArrayList<>();
            for (List<Item> items : places) {
                List<Item> held = new ArrayList<>();
                items.forEach(item -> held.addAll(item.field(field)));
                below.add(held);
            }
            collect(path + "." + Names.step(field), field, below, found, depth + 1);
        }
    }
}
