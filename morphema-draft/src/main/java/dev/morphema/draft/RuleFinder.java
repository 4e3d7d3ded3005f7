package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Finds the rule that gives a field its values, from all that is in scope. */
final class RuleFinder {
    private static final double FOR_NAMES = 1.5;
    private static final double LIKE_ENOUGH = 0.5;
    /** What few values tell, or a single one, may be by chance; far-fetched rules then are. */
    private static final double FOR_FEW = 0.3;

    private static final double FOR_ONE = 0.8;
    private static final double MOST_BY_CHANCE = 2.7;
    private static final int MOST_CODES = 30;
    private static final int MOST_PAIRS = 60;

    private final List<Column> columns = new ArrayList<>();
    private final List<Repeat> repeats;
    private final List<Repeat> found;
    private final Belonging belonging;
    private final Tables tables;
    private @Nullable List<Term> terms;
    private @Nullable List<Column> ends;

    /**
     * @param around the sequences that are gone through around this place
     * @param taken names that new ones may not hide
     */
    RuleFinder(Scope scope, Tables tables, Set<String> around, Set<String> taken) {
        Columns all = new Columns(scope);
        this.found = all.repeated();
        this.tables = tables;
        this.belonging = Belonging.find(scope, found, all.single(), around, taken);
        this.repeats = new ArrayList<>(found);
        repeats.addAll(belonging.repeats());
        columns.addAll(all.single());
        columns.addAll(tables.lookups(found, all.single(), around));
    }

    /** {@return what repeats, as it is found in the scope} */
    List<Repeat> found() {
        return found;
    }

    /** {@return the names of what belongs to a turn, with their rules} */
    Map<String, String> lets() {
        return belonging.lets();
    }

    /** {@return the values at hand} */
    List<Column> columns() {
        return columns;
    }

    /** {@return the several values at hand} */
    List<Repeat> repeats() {
        return repeats;
    }

    /** {@return the numbers at hand} */
    List<Term> terms() {
        if (terms == null) {
            terms = new ArrayList<>();
            for (Column column : columns) {
                if (column.name().equals(Column.NUMBER)) {
                    continue;
                }
                Term term = Term.of(column);
                if (term != null) {
                    terms.add(term);
                }
            }
            terms.addAll(new Aggregates(repeats).terms());
        }
        return terms;
    }

    /**
     * {@return the likeliest rule, or null if none gives the values}
     *
     * @param constants whether it may be the same at all turns
     */
    @Nullable
    Rule find(Wanted wanted, boolean constants) {
        List<Rule> rules = new ArrayList<>();
        for (Column column : columns) {
            new Copies(wanted, rules::add).find(column);
        }
        if (constants) {
            constants(wanted, rules);
        }
        Rule best = best(wanted, rules);
        if (best != null && best.cost() < 2 && !best.about().isEmpty()) {
            return best;
        }
        List<@Nullable BigDecimal> numbers = wanted.numbers();
        if (numbers != null && wanted.count() > 0) {
            new NumberRules(wanted, numbers, rules::add).find(terms());
        }
        if (!wanted.isAll(Kind.NUMBER) && !wanted.isAll(Kind.BOOLEAN)) {
            new TextRules(wanted, rules::add).find(columns, ends());
            new Aggregates(repeats).texts(wanted, rules::add);
        }
        eitherOf(wanted, rules);
        Rule simple = best(wanted, rules);
        if (simple != null) {
            return simple;
        }
        codes(wanted, rules);
        conditions(wanted, rules);
        return best(wanted, rules);
    }

    /** The first and the last of what repeats, as parts of texts. */
    private List<Column> ends() {
        if (ends == null) {
            ends = foundEnds();
        }
        return ends;
    }

    private List<Column> foundEnds() {
        List<Column> all = new ArrayList<>(columns);
        for (Repeat repeat : repeats) {
            for (Repeat.Values values : repeat.values()) {
                for (boolean first : new boolean[] {true, false}) {
                    List<@Nullable Cell> cells = new ArrayList<>();
                    for (List<@Nullable Cell> each : values.cells()) {
                        cells.add(each.isEmpty() ? null : each.get(first ? 0 : each.size() - 1));
                    }
                    String end = (first ? "first(" : "last(") + repeat.expression() + ")" + values.step();
                    all.add(new Column(end, values.name(), cells, repeat.cost() + 1));
                }
            }
        }
        return all;
    }

    private static @Nullable Rule best(Wanted wanted, List<Rule> rules) {
        double chance = wanted.isTelling() ? 0 : wanted.distinct().size() > 1 ? FOR_FEW : FOR_ONE;
        Rule best = null;
        double least = Double.MAX_VALUE;
        for (Rule rule : rules) {
            double score = rule.about().isEmpty()
                    ? rule.cost()
                    : rule.cost() + chance - FOR_NAMES * Names.likeness(wanted.name(), rule.about());
            boolean taken =
                    wanted.isTelling() || score < MOST_BY_CHANCE || rule.about().isEmpty();
            if (taken && score < least) {
                least = score;
                best = rule;
            }
        }
        return best;
    }

    /** The same value at all turns is not about anything. */
    private static void constants(Wanted wanted, List<Rule> rules) {
        if (wanted.distinct().size() == 1 && wanted.count() == wanted.cells().size()) {
            Cell cell = Objects.requireNonNull(wanted.cells().get(0));
            BigDecimal number = Cell.number(cell);
            boolean once = wanted.count() == 1;
            boolean counted = number != null && number.compareTo(BigDecimal.valueOf(2)) > 0;
            boolean calculated = number != null && number.stripTrailingZeros().scale() > 0;
            // A long text, and a number that is there once, is more likely made of something.
            double cost = once && (wanted.isTelling() || calculated)
                    ? 2.8
                    : once && counted ? 2 : counted ? 1.5 : wanted.isTelling() ? 1.2 : 0.9;
            rules.add(Rule.of(Texts.constant(cell), "", cost));
        }
    }

    /** The one value, or where there is none another. */
    private void eitherOf(Wanted wanted, List<Rule> rules) {
        List<Column> some = columns.stream()
                .filter(column -> column.cells().contains(null) && column.hasAny())
                .limit(MOST_PAIRS)
                .toList();
        for (Column one : some) {
            for (Column other : columns.subList(0, Math.min(columns.size(), MOST_PAIRS))) {
                if (one == other) {
                    continue;
                }
                List<@Nullable Cell> cells = new ArrayList<>();
                for (int i = 0; i < one.cells().size(); i++) {
                    cells.add(
                            one.cells().get(i) == null
                                    ? other.cells().get(i)
                                    : one.cells().get(i));
                }
                Column both =
                        new Column(one.expression() + " ?? " + other.expression(), one.name(), cells, one.cost() + 2);
                new Copies(wanted, rule -> {
                            if (rule.expression().equals(both.expression())) {
                                rules.add(rule);
                            }
                        })
                        .find(both);
            }
        }
    }

    private void codes(Wanted wanted, List<Rule> rules) {
        if (wanted.distinct().size() < 2) {
            return;
        }
        for (Column column : columns) {
            Map<Cell, Cell> meanings = new LinkedHashMap<>();
            if (isTranslation(column, wanted, meanings)
                    && !areNumbers(meanings)
                    && meanings.size() > 1
                    && meanings.size() <= MOST_CODES
                    && (meanings.size() + 1 < wanted.count()
                            || Names.likeness(wanted.field(), column.name()) >= LIKE_ENOUGH && areWords(meanings))) {
                String expression = tables.codes(column.name(), meanings) + "[" + column.expression() + "]";
                rules.add(Rule.of(expression, column.name(), 3 + column.cost() + meanings.size() * 0.1));
            }
        }
    }

    private static boolean areWords(Map<Cell, Cell> meanings) {
        return meanings.keySet().stream().allMatch(cell -> cell.text().matches("\\p{L}{1,12}|.{1,3}"));
    }

    /** Whether what looks like a code list rather is a calculation that is not known. */
    private static boolean areNumbers(Map<Cell, Cell> meanings) {
        return meanings.entrySet().stream()
                .allMatch(entry -> Cell.number(entry.getKey()) != null && Cell.number(entry.getValue()) != null);
    }

    /** Whether the same value always becomes the same other one. */
    private static boolean isTranslation(Column column, Wanted wanted, Map<Cell, Cell> meanings) {
        for (int i = 0; i < column.cells().size(); i++) {
            Cell cell = column.cells().get(i);
            Cell want = wanted.cells().get(i);
            if (cell == null || Cell.filled(cell) == null || want == null) {
                if (want != null || cell != null && meanings.containsKey(cell)) {
                    return false;
                }
                continue;
            }
            Cell before = meanings.putIfAbsent(cell, want);
            if (before != null && !before.equals(want)) {
                return false;
            }
        }
        return true;
    }

    private void conditions(Wanted wanted, List<Rule> rules) {
        Set<String> distinct = wanted.distinct();
        boolean gaps = wanted.count() < wanted.cells().size();
        int least = wanted.isAll(Kind.BOOLEAN) ? 3 : 4;
        if (distinct.size() + (gaps ? 1 : 0) != 2 || wanted.cells().size() < least) {
            return;
        }
        List<Cell> values = new ArrayList<>();
        wanted.cells().stream().filter(Objects::nonNull).distinct().forEach(values::add);
        for (Cell value : values) {
            Cell other = values.size() > 1 ? values.get(value == values.get(0) ? 1 : 0) : null;
            boolean[] holds = Conditions.where(wanted.cells(), value.text());
            for (Conditions.Condition condition : new Conditions(columns, terms()).find(holds)) {
                boolean truth = wanted.isAll(Kind.BOOLEAN) && other != null;
                if (truth && !value.text().equals("true")) {
                    continue;
                }
                String otherwise = other == null ? "" : " else " + Texts.constant(other);
                String expression = truth
                        ? condition.expression()
                        : "if " + condition.expression() + " then " + Texts.constant(value) + otherwise;
                rules.add(Rule.of(expression, condition.about(), 3 + condition.cost() + (truth ? -0.5 : 0)));
            }
        }
    }
}
