package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a field of the target holds at each turn.
 *
 * @param name of the field, perhaps with that of the record around it
 * @param cells the values, null where there is none
 * @param typed whether the format tells numbers from texts
 */
record Wanted(String name, List<@Nullable Cell> cells, boolean typed) {
    /** {@return the name of the field alone} */
    String field() {
        return name.substring(name.lastIndexOf(' ') + 1);
    }

    /** {@return the different values} */
    Set<String> distinct() {
        Set<String> texts = new LinkedHashSet<>();
        cells.stream().filter(Objects::nonNull).forEach(cell -> texts.add(cell.text()));
        return texts;
    }

    /** {@return how many values there are} */
    int count() {
        return (int) cells.stream().filter(Objects::nonNull).count();
    }

    /** {@return whether all values are of a kind, as far as the format tells} */
    boolean isAll(Kind kind) {
        return typed && cells.stream().allMatch(cell -> cell == null || cell.kind() == kind);
    }

    /** {@return the values as numbers, null if one is none} */
    @Nullable
    List<@Nullable BigDecimal> numbers() {
        List<@Nullable BigDecimal> numbers = new ArrayList<>();
        for (Cell cell : cells) {
            BigDecimal number = Cell.number(cell);
            if (number == null && cell != null || cell != null && typed && cell.kind() != Kind.NUMBER) {
                return null;
            }
            numbers.add(number);
        }
        return numbers;
    }

    /**
     * {@return whether one value alone, met by chance, would be a surprise}: many different ones,
     * or a long one
     */
    boolean isTelling() {
        Set<String> distinct = distinct();
        if (distinct.size() > 2) {
            return true;
        }
        String longest = "";
        for (String text : distinct) {
            longest = text.length() > longest.length() ? text : longest;
        }
        boolean digits = longest.chars().allMatch(c -> c >= '0' && c <= '9' || c == '.');
        return longest.length() >= (digits ? 5 : 4) || distinct.size() == 2 && longest.length() >= 3;
    }
}
