package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** Rules that take one value and write it, perhaps in another way. */
final class Copies {
    private final Wanted wanted;
    private final Consumer<Rule> found;

    Copies(Wanted wanted, Consumer<Rule> found) {
        this.wanted = wanted;
        this.found = found;
    }

    void find(Column column) {
        boolean blanks = false;
        boolean defaults = false;
        List<@Nullable Cell> cells = column.cells();
        Set<String> instead = new LinkedHashSet<>();
        for (int i = 0; i < cells.size(); i++) {
            Cell want = wanted.cells().get(i);
            Cell cell = cells.get(i);
            if (want == null && cell != null) {
                if (Cell.filled(cell) != null) {
                    return;
                }
                blanks = true;
            } else if (want != null && cell == null) {
                defaults = true;
                instead.add(Texts.constant(want));
            }
        }
        if (defaults && (instead.size() > 1 || blanks)) {
            return;
        }
        String otherwise = defaults ? " ?? " + instead.iterator().next() : "";
        double cost = column.cost() + (defaults ? 1.5 : 0);
        List<Rule> rules = new ArrayList<>();
        converted(column, cost, rules);
        for (Rule rule : rules) {
            Rule whole = defaults && rule.type().isEmpty()
                    ? new Rule("", rule.expression() + otherwise, rule.about(), rule.cost(), false)
                    : rule;
            if (!defaults || rule.type().isEmpty()) {
                found.accept(blanks ? whole.leavingOutBlank() : whole);
            }
        }
    }

    /**
     * Adds all ways to write the values of a column as those that are wanted, where both have one.
     */
    private void converted(Column column, double cost, List<Rule> rules) {
        List<Cell> from = new ArrayList<>();
        List<Cell> to = new ArrayList<>();
        for (int i = 0; i < column.cells().size(); i++) {
            Cell want = wanted.cells().get(i);
            Cell cell = column.cells().get(i);
            if (want != null && cell != null) {
                from.add(cell);
                to.add(want);
            }
        }
        if (from.isEmpty()) {
            return;
        }
        String path = column.expression();
        Rule plain = Rule.of(path, column.name(), cost);
        if (same(from, to, text -> text)) {
            sameTexts(plain, from, to, rules);
            return;
        }
        numbers(plain, from, to, rules);
        if (rules.isEmpty()) {
            dates(plain, from, to, rules);
        }
        if (rules.isEmpty() && !wanted.isAll(Kind.NUMBER)) {
            changed(plain, from, to, rules);
        }
        if (rules.isEmpty()) {
            booleans(plain, from, to, rules);
            words(plain, from, to, rules);
        }
    }

    private static boolean same(List<Cell> from, List<Cell> to, UnaryOperator<@Nullable String> change) {
        for (int i = 0; i < from.size(); i++) {
            if (!Objects.equals(change.apply(from.get(i).text()), to.get(i).text())) {
                return false;
            }
        }
        return true;
    }

    private void sameTexts(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        boolean alike = true;
        for (int i = 0; i < from.size(); i++) {
            alike &= from.get(i).kind() == to.get(i).kind();
        }
        if (alike || !wanted.typed()) {
            rules.add(plain);
        } else if (wanted.isAll(Kind.NUMBER)) {
            rules.add(plain.as("number"));
        } else if (wanted.isAll(Kind.BOOLEAN)) {
            rules.add(plain.as("boolean"));
        } else if (wanted.isAll(Kind.TEXT)) {
            rules.add(plain.as("text"));
        }
    }

    private void numbers(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        List<BigDecimal> results = new ArrayList<>();
        for (Cell cell : to) {
            BigDecimal number = Cell.number(cell);
            if (number == null || wanted.typed() && cell.kind() == Kind.TEXT && !isPlainText(to)) {
                return;
            }
            results.add(number);
        }
        List<String> texts = from.stream().map(Cell::text).toList();
        for (Forms.NumberForm form : Forms.numbers(texts)) {
            boolean equal = true;
            boolean printed = true;
            int digits = 0;
            for (int i = 0; i < texts.size(); i++) {
                BigDecimal number = Objects.requireNonNull(form.read(texts.get(i)));
                equal &= number.compareTo(results.get(i)) == 0;
                printed &= number.toPlainString().equals(to.get(i).text());
                digits = Math.max(digits, results.get(i).scale());
            }
            boolean asNumber = wanted.isAll(Kind.NUMBER);
            String type = form.arguments().isEmpty() ? "number" : "number(" + form.arguments() + ")";
            String read = form.arguments().isEmpty()
                    ? plain.expression()
                    : "number(" + plain.expression() + ", " + form.arguments() + ")";
            if (equal && asNumber && wanted.typed()) {
                rules.add(plain.as(type));
            } else if (equal && printed) {
                rules.add(plain.as(type));
            } else {
                rounded(plain, read, form, texts, to, digits, asNumber, rules);
            }
            if (!rules.isEmpty()) {
                return;
            }
        }
    }

    private static boolean isPlainText(List<Cell> cells) {
        return cells.stream().allMatch(cell -> cell.kind() == Kind.TEXT);
    }

    private static void rounded(
            Rule plain,
            String read,
            Forms.NumberForm form,
            List<String> texts,
            List<Cell> to,
            int digits,
            boolean asNumber,
            List<Rule> rules) {
        boolean fits = true;
        for (int i = 0; i < texts.size(); i++) {
            BigDecimal rounded =
                    Objects.requireNonNull(form.read(texts.get(i))).setScale(Math.max(digits, 0), RoundingMode.HALF_UP);
            String want = to.get(i).text();
            fits &= asNumber
                    ? rounded.compareTo(new BigDecimal(want)) == 0
                    : rounded.toPlainString().equals(want);
        }
        if (fits) {
            String expression = "round(" + read + (digits > 0 ? ", " + digits : "") + ")";
            rules.add(Rule.of(expression, plain.about(), plain.cost() + 0.6));
        }
    }

    private static void dates(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        List<String> texts = from.stream().map(Cell::text).toList();
        List<String> results = to.stream().map(Cell::text).toList();
        List<Forms.DateForm> read = Forms.dates(texts);
        if (read.isEmpty()) {
            return;
        }
        zoned(plain, read, texts, results, rules);
        for (Forms.DateForm write : Forms.dates(results)) {
            for (Forms.DateForm form : read) {
                if (allWritten(form, write, texts, results)) {
                    rules.add(date(plain, form, write));
                    return;
                }
            }
        }
    }

    /** Local times become those of a zone. */
    private static void zoned(
            Rule plain, List<Forms.DateForm> read, List<String> texts, List<String> results, List<Rule> rules) {
        for (Forms.DateForm form : read) {
            String zone = Forms.zone(form, texts, results);
            if (zone != null && rules.isEmpty()) {
                rules.add(plain.as("datetime(" + Texts.single(form.pattern()) + ", " + Texts.single(zone) + ")"));
            }
        }
    }

    private static boolean allWritten(
            Forms.DateForm read, Forms.DateForm write, List<String> texts, List<String> results) {
        for (int i = 0; i < texts.size(); i++) {
            TemporalAccessor value = read.read(texts.get(i));
            if (value == null || !results.get(i).equals(write.write(value))) {
                return false;
            }
        }
        return true;
    }

    private static Rule date(Rule plain, Forms.DateForm read, Forms.DateForm write) {
        if (write.pattern().isEmpty() && write.moment() == read.moment()) {
            return plain.as(read.function() + "(" + Texts.single(read.pattern()) + ")");
        }
        String pattern = read.pattern().isEmpty() ? "" : ", " + Texts.raw(read.pattern());
        String value = read.function() + "(" + plain.expression() + pattern + ")";
        String expression = write.pattern().isEmpty()
                ? write.function() + "(" + value + ")"
                : "format(" + value + ", " + Texts.raw(write.pattern()) + ")";
        return Rule.of(expression, plain.about(), plain.cost() + 0.5);
    }

    private static void changed(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        String path = plain.expression();
        String about = plain.about();
        if (same(from, to, String::trim)) {
            rules.add(Rule.of("trim(" + path + ")", about, plain.cost() + 0.5));
        } else if (same(from, to, text -> text.toUpperCase(Locale.ROOT))) {
            rules.add(Rule.of("upper(" + path + ")", about, plain.cost() + 0.7));
        } else if (same(from, to, text -> text.toLowerCase(Locale.ROOT))) {
            rules.add(Rule.of("lower(" + path + ")", about, plain.cost() + 0.7));
        } else if (same(from, to, text -> text.trim().replaceAll("\\s+", " "))) {
            rules.add(Rule.of("normalizeSpace(" + path + ")", about, plain.cost() + 0.7));
        } else if (same(from, to, text -> text.trim().toUpperCase(Locale.ROOT))) {
            rules.add(Rule.of("upper(trim(" + path + "))", about, plain.cost() + 0.9));
        } else if (same(from, to, text -> text.trim().toLowerCase(Locale.ROOT))) {
            rules.add(Rule.of("lower(trim(" + path + "))", about, plain.cost() + 0.9));
        }
    }

    /** Two words that mean true and false. */
    private void booleans(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        if (!wanted.isAll(Kind.BOOLEAN)) {
            return;
        }
        Set<String> yes = new LinkedHashSet<>();
        Set<String> no = new LinkedHashSet<>();
        for (int i = 0; i < from.size(); i++) {
            (to.get(i).text().equals("true") ? yes : no).add(from.get(i).text());
        }
        if (yes.size() == 1 && no.size() == 1 && !yes.equals(no)) {
            rules.add(plain.as("boolean(" + quote(yes) + ", " + quote(no) + ")"));
        }
    }

    /** True and false become two words. */
    private static void words(Rule plain, List<Cell> from, List<Cell> to, List<Rule> rules) {
        Set<Cell> yes = new LinkedHashSet<>();
        Set<Cell> no = new LinkedHashSet<>();
        for (int i = 0; i < from.size(); i++) {
            if (from.get(i).kind() != Kind.BOOLEAN) {
                return;
            }
            (from.get(i).text().equals("true") ? yes : no).add(to.get(i));
        }
        if (yes.size() == 1 && no.size() == 1 && !yes.equals(no)) {
            String expression = "if " + plain.expression() + " then "
                    + Texts.constant(yes.iterator().next()) + " else "
                    + Texts.constant(no.iterator().next());
            rules.add(Rule.of(expression, plain.about(), plain.cost() + 0.8));
        }
    }

    private static String quote(Set<String> word) {
        return Texts.single(word.iterator().next());
    }
}
