package dev.morphema.draft;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Finds a condition that holds at some turns, and at no others. */
final class Conditions {
    private static final int MOST_CODES = 6;

    /**
     * A condition.
     *
     * @param expression as the mapping writes it
     * @param about the name of what it looks at
     * @param cost how far-fetched it is
     */
    record Condition(String expression, String about, double cost) {}

    private final List<Column> columns;
    private final List<Term> terms;

    Conditions(List<Column> columns, List<Term> terms) {
        this.columns = columns;
        this.terms = terms;
    }

    /** {@return the conditions that hold where they should, the simplest first} */
    List<Condition> find(boolean[] holds) {
        List<Condition> found = new ArrayList<>();
        for (Column column : columns) {
            byPresence(column, holds, found);
            // A value that is there once tells nothing of others.
            boolean unique = holds.length > 1 && column.distinct().size() == holds.length;
            if (!unique && !column.name().equals(Column.NUMBER)) {
                byCode(column, holds, found);
            }
        }
        for (Term term : terms) {
            byBound(term, holds, found);
        }
        found.sort(Comparator.comparingDouble(Condition::cost));
        return found;
    }

    private static void byPresence(Column column, boolean[] holds, List<Condition> found) {
        boolean same = true;
        boolean opposite = true;
        for (int i = 0; i < holds.length; i++) {
            boolean there = Cell.filled(column.cells().get(i)) != null;
            same &= there == holds[i];
            opposite &= there != holds[i];
        }
        if (same || opposite) {
            boolean blank = column.cells().stream()
                    .anyMatch(cell -> cell != null && cell.text().isBlank());
            String there = blank ? "blank(" + column.expression() + ")" : column.expression() + " == absent";
            String not = blank ? "not blank(" + column.expression() + ")" : column.expression() + " != absent";
            found.add(new Condition(same ? not : there, column.name(), 1 + column.cost() * 0.2));
        }
    }

    private static void byCode(Column column, boolean[] holds, List<Condition> found) {
        Set<String> where = new LinkedHashSet<>();
        Set<String> elsewhere = new LinkedHashSet<>();
        boolean noneWhere = false;
        boolean noneElsewhere = false;
        for (int i = 0; i < holds.length; i++) {
            Cell cell = column.cells().get(i);
            if (cell == null) {
                noneWhere |= holds[i];
                noneElsewhere |= !holds[i];
            } else {
                (holds[i] ? where : elsewhere).add(Texts.constant(cell));
            }
        }
        boolean parted = where.stream().noneMatch(elsewhere::contains) && !(noneWhere && noneElsewhere);
        double cost = 1.2 + column.cost() * 0.2;
        if (!parted || where.isEmpty() && elsewhere.isEmpty()) {
            return;
        }
        // Absent equals nothing but absent.
        if (!noneWhere && !where.isEmpty() && where.size() <= MOST_CODES) {
            found.add(equals(column, where, "==", "in", cost + 0.3 * (where.size() - 1)));
        }
        if (!noneElsewhere && !elsewhere.isEmpty() && elsewhere.size() <= MOST_CODES) {
            found.add(equals(column, elsewhere, "!=", "not in", cost + 0.05 + 0.3 * (elsewhere.size() - 1)));
        }
    }

    private static Condition equals(Column column, Set<String> codes, String one, String several, double cost) {
        String expression = codes.size() == 1
                ? column.expression() + " " + one + " " + codes.iterator().next()
                : column.expression() + " " + several + " [" + String.join(", ", codes) + "]";
        return new Condition(expression, column.name(), cost);
    }

    private static void byBound(Term term, boolean[] holds, List<Condition> found) {
        BigDecimal leastWhere = null;
        BigDecimal mostWhere = null;
        BigDecimal leastElse = null;
        BigDecimal mostElse = null;
        for (int i = 0; i < holds.length; i++) {
            BigDecimal value = term.values().get(i);
            if (value == null) {
                if (holds[i]) {
                    return;
                }
                continue;
            }
            if (holds[i]) {
                leastWhere = leastWhere == null ? value : leastWhere.min(value);
                mostWhere = mostWhere == null ? value : mostWhere.max(value);
            } else {
                leastElse = leastElse == null ? value : leastElse.min(value);
                mostElse = mostElse == null ? value : mostElse.max(value);
            }
        }
        if (leastWhere == null || mostWhere == null || leastElse == null || mostElse == null) {
            return;
        }
        double cost = 1.6 + term.cost() * 0.3;
        if (leastWhere.compareTo(mostElse) > 0) {
            BigDecimal bound = between(mostElse, leastWhere);
            String sign = bound.compareTo(leastWhere) == 0 ? " >= " : " > ";
            found.add(new Condition(term.expression() + sign + bound.toPlainString(), term.about(), cost));
        } else if (mostWhere.compareTo(leastElse) < 0) {
            BigDecimal bound = between(mostWhere, leastElse);
            String sign = bound.compareTo(leastElse) == 0 ? " < " : " <= ";
            found.add(new Condition(term.expression() + sign + bound.toPlainString(), term.about(), cost));
        }
    }

    /** {@return the roundest number that is at least one and at most another} */
    private static BigDecimal between(BigDecimal low, BigDecimal high) {
        for (int scale = -9; scale < 10; scale++) {
            BigDecimal up = low.setScale(scale, RoundingMode.CEILING);
            if (up.compareTo(high) <= 0) {
                return up.scale() < 0 ? up.setScale(0) : up;
            }
        }
        return high;
    }

    /** {@return where something is, of some turns} */
    static boolean[] where(List<@Nullable Cell> cells, String text) {
        boolean[] holds = new boolean[cells.size()];
        for (int i = 0; i < holds.length; i++) {
            Cell cell = cells.get(i);
            holds[i] = cell != null && cell.text().equals(text);
        }
        return holds;
    }
}
