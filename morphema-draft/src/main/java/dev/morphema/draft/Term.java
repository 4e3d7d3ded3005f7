package dev.morphema.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * An expression that gives a number at each turn, or none.
 *
 * @param expression as the mapping writes it
 * @param about the name of what it is made of
 * @param values the numbers, as exact as those of a run
 * @param cost how far-fetched it is
 */
record Term(String expression, String about, List<@Nullable BigDecimal> values, double cost) {
    /** {@return the numbers of a column, if all its values are some} */
    static @Nullable Term of(Column column) {
        Set<String> texts = new LinkedHashSet<>();
        for (Cell cell : column.cells()) {
            String text = Cell.filled(cell);
            if (text != null) {
                texts.add(text);
            } else if (cell != null) {
                return null;
            }
        }
        List<Forms.NumberForm> forms = Forms.numbers(texts);
        if (forms.isEmpty()) {
            return null;
        }
        Forms.NumberForm form = forms.get(0);
        List<@Nullable BigDecimal> values = new ArrayList<>();
        for (Cell cell : column.cells()) {
            values.add(cell == null ? null : form.read(cell.text()));
        }
        return new Term(read(column.expression(), form), column.name(), values, column.cost());
    }

    /** {@return an expression read as a number} */
    static String read(String expression, Forms.NumberForm form) {
        return form.arguments().isEmpty() ? expression : "number(" + expression + ", " + form.arguments() + ")";
    }
}
