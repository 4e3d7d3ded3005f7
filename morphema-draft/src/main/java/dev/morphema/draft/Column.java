package dev.morphema.draft;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * An expression that gives one value, or none, at each turn of a scope.
 *
 * @param expression as the mapping writes it
 * @param name what it is about, to be compared with the name of a target field
 * @param cells the value at each turn; null for none
 * @param cost how far-fetched it is: 0 for a field of the nearest record
 */
record Column(String expression, String name, List<@Nullable Cell> cells, double cost) {
    /** What the number of a turn is about, which nothing is calculated from. */
    static final String NUMBER = "number line position";

    /** {@return the different values, without none} */
    Set<String> distinct() {
        Set<String> texts = new LinkedHashSet<>();
        for (Cell cell : cells) {
            if (cell != null) {
                texts.add(cell.text());
            }
        }
        return texts;
    }

    /** {@return whether some turn has a value} */
    boolean hasAny() {
        return cells.stream().anyMatch(Objects::nonNull);
    }
}
