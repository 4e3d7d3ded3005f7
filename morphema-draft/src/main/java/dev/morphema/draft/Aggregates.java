package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What can be made of several values: counts, sums, the first and the last, lists and joined texts.
 */
final class Aggregates {
    private static final List<String> MARKS = List.of(", ", ",", "|", ";", "; ", " ", "/", "-", " / ", " | ", "");
    private static final int MOST_PRODUCTS = 12;

    private final List<Repeat> repeats;

    Aggregates(List<Repeat> repeats) {
        this.repeats = repeats;
    }

    /** {@return all numbers that several values give} */
    List<Term> terms() {
        List<Term> terms = new ArrayList<>();
        for (Repeat repeat : repeats) {
            terms.add(new Term(
                    "count(" + repeat.expression() + ")",
                    "count " + repeat.name(),
                    repeat.items().stream()
                            .<@Nullable BigDecimal>map(items -> BigDecimal.valueOf(items.size()))
                            .toList(),
                    1 + repeat.cost()));
            List<Repeat.Values> values = repeat.values();
            List<Numbers> numbers = new ArrayList<>();
            for (Repeat.Values each : values) {
                distinctCount(repeat, each, terms);
                Numbers found = numbers(repeat, each);
                if (found != null) {
                    numbers.add(found);
                    sums(found, repeat.cost(), terms);
                }
            }
            products(repeat, numbers, terms);
        }
        return terms;
    }

    private static void distinctCount(Repeat repeat, Repeat.Values values, List<Term> terms) {
        List<@Nullable BigDecimal> counts = new ArrayList<>();
        for (List<@Nullable Cell> cells : values.cells()) {
            counts.add(BigDecimal.valueOf(cells.stream()
                    .filter(Objects::nonNull)
                    .map(Cell::text)
                    .distinct()
                    .count()));
        }
        terms.add(new Term(
                "count(distinct(" + repeat.expression() + values.step() + "))",
                "count " + values.name(),
                counts,
                1.6 + repeat.cost()));
    }

    /** Numbers of several items, of which some may have none. */
    private record Numbers(
            String many,
            String one,
            String name,
            boolean plain,
            boolean texts,
            List<List<@Nullable BigDecimal>> values) {}

    private static @Nullable Numbers numbers(Repeat repeat, Repeat.Values values) {
        Set<String> texts = new LinkedHashSet<>();
        for (List<@Nullable Cell> cells : values.cells()) {
            for (Cell cell : cells) {
                if (cell != null && Cell.filled(cell) == null) {
                    return null;
                }
                if (cell != null) {
                    texts.add(cell.text());
                }
            }
        }
        List<Forms.NumberForm> forms = Forms.numbers(texts);
        if (forms.isEmpty()) {
            return null;
        }
        Forms.NumberForm form = forms.get(0);
        List<List<@Nullable BigDecimal>> all = new ArrayList<>();
        for (List<@Nullable Cell> cells : values.cells()) {
            List<@Nullable BigDecimal> here = new ArrayList<>();
            cells.forEach(cell -> here.add(cell == null ? null : form.read(cell.text())));
            all.add(here);
        }
        String one = Term.read("x" + values.step(), form);
        boolean plain = form.arguments().isEmpty();
        String path = repeat.expression() + values.step();
        String many = plain ? path : Term.read("x", form) + " for x in " + path;
        boolean written = values.cells().stream()
                .flatMap(List::stream)
                .anyMatch(cell -> cell != null && cell.kind() == Kind.TEXT);
        return new Numbers(many, one, values.name(), plain, written, all);
    }

    private static void sums(Numbers numbers, double cost, List<Term> terms) {
        add("sum", numbers, cost + 1.1, values -> values.stream().reduce(BigDecimal.ZERO, BigDecimal::add), terms);
        add("avg", numbers, cost + 1.4, Aggregates::average, terms);
        // Texts compare as texts, so those of a source are read as numbers first.
        Numbers read = numbers.texts() && numbers.plain()
                ? new Numbers(
                        "number(x) for x in " + numbers.many(),
                        numbers.one(),
                        numbers.name(),
                        false,
                        true,
                        numbers.values())
                : numbers;
        add(
                "min",
                read,
                cost + 1.3,
                values -> values.stream().min(BigDecimal::compareTo).orElse(null),
                terms);
        add(
                "max",
                read,
                cost + 1.3,
                values -> values.stream().max(BigDecimal::compareTo).orElse(null),
                terms);
    }

    private static @Nullable BigDecimal average(List<BigDecimal> values) {
        if (values.isEmpty()) {
            return null;
        }
        BigDecimal sum = values.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
        BigDecimal mean = sum.divide(BigDecimal.valueOf(values.size()), MathContext.DECIMAL128)
                .stripTrailingZeros();
        return mean.scale() < 0 ? mean.setScale(0) : mean;
    }

    private static void add(
            String function,
            Numbers numbers,
            double cost,
            Function<List<BigDecimal>, @Nullable BigDecimal> total,
            List<Term> terms) {
        List<@Nullable BigDecimal> results = new ArrayList<>();
        for (List<@Nullable BigDecimal> values : numbers.values()) {
            List<BigDecimal> there = new ArrayList<>();
            values.stream().filter(Objects::nonNull).forEach(there::add);
            results.add(total.apply(there));
        }
        terms.add(new Term(function + "(" + numbers.many() + ")", function + " " + numbers.name(), results, cost));
    }

    private static void products(Repeat repeat, List<Numbers> numbers, List<Term> terms) {
        for (int a = 0; a < Math.min(numbers.size(), MOST_PRODUCTS); a++) {
            for (int b = a + 1; b < Math.min(numbers.size(), MOST_PRODUCTS); b++) {
                Numbers one = numbers.get(a);
                Numbers other = numbers.get(b);
                List<@Nullable BigDecimal> results = new ArrayList<>();
                boolean alike = true;
                for (int i = 0; alike && i < one.values().size(); i++) {
                    List<@Nullable BigDecimal> left = one.values().get(i);
                    List<@Nullable BigDecimal> right = other.values().get(i);
                    alike = left.size() == right.size()
                            && left.size() == repeat.items().get(i).size();
                    BigDecimal sum = BigDecimal.ZERO;
                    for (int k = 0; alike && k < left.size(); k++) {
                        BigDecimal x = left.get(k);
                        BigDecimal y = right.get(k);
                        sum = x == null || y == null ? sum : sum.add(x.multiply(y));
                    }
                    results.add(sum);
                }
                if (alike) {
                    terms.add(new Term(
                            "sum(" + one.one() + " * " + other.one() + " for x in " + repeat.expression() + ")",
                            "sum " + one.name() + " " + other.name(),
                            results,
                            1.8 + repeat.cost()));
                }
            }
        }
    }

    /** Offers texts: the first, the last, the least and the greatest, and all of them joined. */
    void texts(Wanted wanted, Consumer<Rule> found) {
        for (Repeat repeat : repeats) {
            for (Repeat.Values values : repeat.values()) {
                String many = repeat.expression() + values.step();
                pick(
                        wanted,
                        "last(" + repeat.expression() + ")" + values.step(),
                        values,
                        repeat.cost() + 1.6,
                        found,
                        cells -> cells.get(cells.size() - 1));
                pick(
                        wanted,
                        "first(" + repeat.expression() + ")" + values.step(),
                        values,
                        repeat.cost() + 1.5,
                        found,
                        cells -> cells.get(0));
                pick(wanted, "min(" + many + ")", values, repeat.cost() + 1.7, found, cells -> least(cells, 1));
                pick(wanted, "max(" + many + ")", values, repeat.cost() + 1.7, found, cells -> least(cells, -1));
                for (String mark : MARKS) {
                    String quoted = Texts.raw(mark);
                    pick(
                            wanted,
                            "join(" + many + ", " + quoted + ")",
                            values,
                            repeat.cost() + 1.9,
                            found,
                            cells -> joined(cells, mark, false));
                    pick(
                            wanted,
                            "join(distinct(" + many + "), " + quoted + ")",
                            values,
                            repeat.cost() + 2,
                            found,
                            cells -> joined(cells, mark, true));
                }
            }
        }
    }

    private static void pick(
            Wanted wanted,
            String expression,
            Repeat.Values values,
            double cost,
            Consumer<Rule> found,
            Function<List<@Nullable Cell>, @Nullable Cell> choice) {
        List<@Nullable Cell> picked = new ArrayList<>();
        for (List<@Nullable Cell> cells : values.cells()) {
            picked.add(cells.isEmpty() ? null : choice.apply(cells));
        }
        new Copies(
                        wanted,
                        rule -> found.accept(new Rule(
                                rule.type(), rule.expression(), rule.about(), rule.cost() + cost, rule.leftOut())))
                .find(new Column(expression, values.name(), picked, 0));
    }

    private static @Nullable Cell least(List<@Nullable Cell> cells, int sign) {
        Cell best = null;
        for (Cell cell : cells) {
            if (cell != null && (best == null || sign * cell.text().compareTo(best.text()) < 0)) {
                best = cell;
            }
        }
        return best;
    }

    private static @Nullable Cell joined(List<@Nullable Cell> cells, String mark, boolean distinct) {
        List<String> texts = new ArrayList<>();
        cells.stream()
                .filter(Objects::nonNull)
                .map(Cell::text)
                .filter(text -> !distinct || !texts.contains(text))
                .forEach(texts::add);
        return texts.size() < 2 && cells.size() < 2 && mark.isEmpty() || texts.isEmpty()
                ? null
                : Cell.text(String.join(mark, texts));
    }
}
