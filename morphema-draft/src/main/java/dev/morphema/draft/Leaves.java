package dev.morphema.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The single values within some records of the target, by which records of a source are recognised.
 */
final class Leaves {
    private static final int DEEPEST = 2;

    /**
     * A value of each record.
     *
     * @param name of its field
     * @param cells the values, null for none
     */
    record Leaf(String name, List<@Nullable Cell> cells) {}

    private Leaves() {}

    /** {@return the values of some records} */
    static List<Leaf> of(List<Item> records) {
        List<Leaf> leaves = new ArrayList<>();
        List<@Nullable Item> places = new ArrayList<>(records);
        collect("", places, leaves, 0);
        return leaves;
    }

    private static void collect(String name, List<@Nullable Item> places, List<Leaf> leaves, int depth) {
        List<@Nullable Cell> cells = new ArrayList<>();
        boolean any = false;
        Set<String> names = new LinkedHashSet<>();
        for (Item item : places) {
            cells.add(item == null ? null : item.cell());
            any |= item != null && item.cell() != null;
            if (item != null) {
                names.addAll(item.fields().keySet());
            }
        }
        if (any) {
            leaves.add(new Leaf(name, cells));
        }
        for (String field : depth < DEEPEST ? names : Set.<String>of()) {
            List<@Nullable Item> below = new ArrayList<>();
            boolean several = false;
            for (Item item : places) {
                below.add(item == null ? null : item.only(field));
                several |= item != null && (item.field(field).size() > 1 || item.isList(field));
            }
            if (!several) {
                collect(field, below, leaves, depth + 1);
            }
        }
    }

    /**
     * {@return how many values of some records stand in columns}
     *
     * @param turns for each record the turn in which they are looked for
     */
    static int explained(List<Leaf> leaves, List<Column> columns, int[] turns) {
        int count = 0;
        for (Leaf leaf : leaves) {
            count += columns.stream().anyMatch(column -> isIn(leaf, column, turns)) ? 1 : 0;
        }
        return count;
    }

    private static boolean isIn(Leaf leaf, Column column, int[] turns) {
        boolean any = false;
        for (int i = 0; i < turns.length; i++) {
            Cell want = leaf.cells().get(i);
            if (!alike(want, column.cells().get(turns[i]))) {
                return false;
            }
            any |= want != null;
        }
        return any;
    }

    /** {@return whether two values are the same, in whatever way they are written} */
    static boolean alike(@Nullable Cell want, @Nullable Cell cell) {
        if (want == null || cell == null) {
            return want == cell || want == null && Cell.filled(cell) == null;
        }
        if (want.text().equals(cell.text())) {
            return true;
        }
        BigDecimal one = Cell.number(want);
        BigDecimal other =
                one == null ? null : Cell.number(Cell.text(cell.text().replace(',', '.')));
        return one != null && other != null
                ? one.compareTo(other) == 0
                : want.text().trim().equalsIgnoreCase(cell.text().trim());
    }

    /** {@return a text that is equal for values that are alike} */
    static String normal(Cell cell) {
        BigDecimal number = Cell.number(Cell.text(cell.text().trim().replace(',', '.')));
        return number != null && !cell.text().trim().matches("0[0-9]+.*")
                ? number.stripTrailingZeros().toPlainString()
                : cell.text().trim().toLowerCase(Locale.ROOT);
    }
}
