package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The records of a target that are to be explained, of all times that their place is reached.
 *
 * @param records one after the other
 * @param starts for each turn around, at which record its own begin; and the end
 * @param leaves the single values of the records, by which they are recognised
 */
record Expected(List<Item> records, int[] starts, List<Leaves.Leaf> leaves) {
    /** @param children for each turn around, the records to explain */
    static Expected of(List<List<Item>> children) {
        List<Item> records = new ArrayList<>();
        int[] starts = new int[children.size() + 1];
        for (int i = 0; i < children.size(); i++) {
            records.addAll(children.get(i));
            starts[i + 1] = records.size();
        }
        return new Expected(records, starts, Leaves.of(records));
    }

    /** {@return how many records there are in a turn around} */
    int size(int around) {
        return starts[around + 1] - starts[around];
    }

    /**
     * {@return for each record the turn of a loop with the same value; null if one has none}
     *
     * @param sizes how many turns there are in each turn around
     */
    int @Nullable [] matched(Leaves.Leaf leaf, Column column, int[] sizes) {
        int[] order = new int[records.size()];
        int base = 0;
        for (int around = 0; around < sizes.length; around++) {
            Map<String, List<Integer>> turns = new HashMap<>();
            for (int i = base; i < base + sizes[around]; i++) {
                Cell cell = column.cells().get(i);
                if (cell != null) {
                    turns.computeIfAbsent(Leaves.normal(cell), n -> new ArrayList<>())
                            .add(i);
                }
            }
            for (int i = starts[around]; i < starts[around + 1]; i++) {
                Cell want = leaf.cells().get(i);
                List<Integer> same = want == null ? null : turns.get(Leaves.normal(want));
                if (same == null || same.isEmpty()) {
                    return null;
                }
                order[i] = same.remove(0);
            }
            base += sizes[around];
        }
        return order;
    }
}
