package dev.morphema.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.IntBinaryOperator;
import org.jspecify.annotations.Nullable;

/** Finds by what the turns of a loop are sorted. */
final class Sorting {
    /** A way to compare two turns. */
    private record Key(String expression, IntBinaryOperator order, double cost) {}

    private final Alignment alignment;
    private final List<Key> keys = new ArrayList<>();

    private Sorting(Alignment alignment, RuleFinder rules) {
        this.alignment = alignment;
        for (Column column : rules.columns()) {
            add(column.expression(), column.cells(), Comparator.comparing(Cell::text), column.cost());
        }
        for (Term term : rules.terms()) {
            boolean read = term.expression().matches("[a-z]+\\(.*")
                    || term.expression().contains("(");
            String number = read ? term.expression() : "number(" + term.expression() + ")";
            add(number, term.values(), Comparator.naturalOrder(), term.cost() + 0.3);
        }
    }

    private <T> void add(String expression, List<@Nullable T> values, Comparator<T> order, double cost) {
        for (boolean down : new boolean[] {false, true}) {
            Comparator<@Nullable T> whole = Comparator.nullsLast(down ? order.reversed() : order);
            keys.add(new Key(
                    expression + (down ? " desc" : ""),
                    (a, b) -> whole.compare(values.get(a), values.get(b)),
                    cost + (down ? 0.1 : 0)));
        }
    }

    /** {@return what stands behind sort by; null if nothing gives the order} */
    static @Nullable String find(Alignment alignment, RuleFinder rules) {
        Sorting sorting = new Sorting(alignment, rules);
        List<Key> byCost = new ArrayList<>(sorting.keys);
        byCost.sort(Comparator.comparingDouble(Key::cost));
        for (Key key : byCost) {
            if (sorting.isSorted(key.order())) {
                return key.expression();
            }
        }
        List<Key> begin =
                byCost.stream().filter(key -> sorting.neverDown(key.order())).toList();
        for (Key first : begin) {
            for (Key second : byCost) {
                IntBinaryOperator both = (a, b) -> {
                    int order = first.order().applyAsInt(a, b);
                    return order == 0 ? second.order().applyAsInt(a, b) : order;
                };
                if (sorting.isSorted(both)) {
                    return first.expression() + ", " + second.expression();
                }
            }
        }
        return null;
    }

    private boolean neverDown(IntBinaryOperator order) {
        return holds((before, turn) -> order.applyAsInt(before, turn) <= 0);
    }

    /** What is equal stays in the order of the loop. */
    private boolean isSorted(IntBinaryOperator order) {
        return holds((before, turn) -> {
            int compared = order.applyAsInt(before, turn);
            return compared < 0
                    || compared == 0 && alignment.order()[before] < alignment.order()[turn];
        });
    }

    private interface Pair {
        boolean holds(int before, int turn);
    }

    private boolean holds(Pair pair) {
        int[] starts = alignment.starts();
        for (int around = 0; around + 1 < starts.length; around++) {
            for (int i = starts[around] + 1; i < starts[around + 1]; i++) {
                if (!pair.holds(i - 1, i)) {
                    return false;
                }
            }
        }
        return true;
    }
}
