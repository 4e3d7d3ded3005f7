package dev.morphema.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The day and the month of a column of dates or times, by which things are often grouped. */
final class DatedColumns {
    private static final Pattern ISO = Pattern.compile("[0-9]{4}-[0-9]{2}-[0-9]{2}([T ].*)?");
    private static final int DAY = 10;
    private static final int MONTH = 7;

    private DatedColumns() {}

    /** {@return what can be made of a column; none if it has no dates} */
    static List<Column> of(Column column) {
        List<Column> found = new ArrayList<>();
        if (!column.hasAny()
                || !column.cells().stream()
                        .allMatch(
                                cell -> cell == null || ISO.matcher(cell.text()).matches())) {
            return found;
        }
        if (column.distinct().stream().anyMatch(text -> text.length() > DAY)) {
            found.add(changed(
                    column, "left(" + column.expression() + ", " + DAY + ")", "day", text -> text.substring(0, DAY)));
        }
        found.add(changed(
                column, "left(" + column.expression() + ", " + MONTH + ")", "month", text -> text.substring(0, MONTH)));
        return found;
    }

    private static Column changed(Column column, String expression, String name, UnaryOperator<String> change) {
        List<@Nullable Cell> cells = new ArrayList<>();
        for (Cell cell : column.cells()) {
            cells.add(cell == null ? null : Cell.text(change.apply(cell.text())));
        }
        return new Column(expression, name, cells, column.cost() + 0.5);
    }
}
