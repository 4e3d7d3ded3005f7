package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.BinaryOperator;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Rules that calculate a number. */
final class NumberRules {
    private static final int MOST_TERMS = 40;
    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
    private static final List<BigDecimal> FACTORS = List.of(
            BigDecimal.TEN,
            HUNDRED,
            BigDecimal.valueOf(1000),
            BigDecimal.valueOf(60),
            BigDecimal.valueOf(3600),
            BigDecimal.valueOf(24),
            BigDecimal.valueOf(12),
            BigDecimal.valueOf(7),
            BigDecimal.valueOf(2),
            BigDecimal.valueOf(1024));
    private static final int LONGEST_FACTOR = 6;
    private static final int MOST_FACTORS = 14;

    private final Wanted wanted;
    private final List<@Nullable BigDecimal> results;
    private final Consumer<Rule> found;
    /** The first turn with a value; -1 if there is none. */
    private final int first;

    /** The decimals that the wanted values have, at most. */
    private final int digits;

    NumberRules(Wanted wanted, List<@Nullable BigDecimal> results, Consumer<Rule> found) {
        this.wanted = wanted;
        this.results = results;
        this.found = found;
        int most = 0;
        for (BigDecimal result : results) {
            if (result != null) {
                most = Math.max(most, result.scale());
            }
        }
        this.digits = most;
        int index = 0;
        while (index < results.size() && results.get(index) == null) {
            index++;
        }
        this.first = index < results.size() ? index : -1;
    }

    void find(List<Term> terms) {
        for (Term term : terms) {
            offer(term);
        }
        List<Term> used = terms.subList(0, Math.min(terms.size(), MOST_TERMS));
        used.forEach(this::withConstants);
        for (Term one : used) {
            for (Term other : used) {
                if (one != other) {
                    pairs(one, other);
                }
            }
        }
        triples(terms.subList(0, Math.min(terms.size(), MOST_FACTORS)));
    }

    /** Three numbers of which one is in percent, such as a quantity, a price and a tax. */
    private void triples(List<Term> factors) {
        for (int a = 0; a < factors.size(); a++) {
            for (int b = a + 1; b < factors.size(); b++) {
                Term two = joined(
                        factors.get(a),
                        factors.get(b),
                        factors.get(a).expression() + " * " + factors.get(b).expression(),
                        BigDecimal::multiply,
                        0);
                for (int c = b + 1; c < factors.size(); c++) {
                    Term other = factors.get(c);
                    combine(two, "*", other, BigDecimal::multiply, 2.2);
                    scaled(two, other);
                }
            }
        }
    }

    private void pairs(Term one, Term other) {
        boolean first = one.expression().compareTo(other.expression()) < 0;
        if (first) {
            combine(one, "*", other, BigDecimal::multiply, 1.5);
            combine(one, "+", other, BigDecimal::add, 1.6);
            scaled(one, other);
        }
        combine(one, "-", other, BigDecimal::subtract, 1.7);
        combine(one, "/", other, NumberRules::divide, 2);
        share(one, other);
        percent(one, other, "+", BigDecimal::add);
        percent(one, other, "-", BigDecimal::subtract);
    }

    private static BigDecimal divide(BigDecimal a, BigDecimal b) {
        boolean ofTen = b.stripTrailingZeros().unscaledValue().equals(BigInteger.ONE);
        return plain(ofTen ? a.movePointLeft(b.precision() - b.scale() - 1) : a.divide(b, MathContext.DECIMAL128));
    }

    private static BigDecimal plain(BigDecimal number) {
        BigDecimal stripped = number.stripTrailingZeros();
        return stripped.scale() < 0 ? stripped.setScale(0) : stripped;
    }

    /** One number times another, of which one is in percent or thousandths. */
    private void scaled(Term one, Term other) {
        for (BigDecimal factor : List.of(HUNDRED, BigDecimal.valueOf(1000))) {
            Term both = combined(
                    one,
                    other,
                    one.expression() + " * " + other.expression() + " / " + factor.toPlainString(),
                    (a, b) -> divide(a.multiply(b), factor),
                    2.2);
            offer(both);
        }
    }

    /** How many percent one number is of another. */
    private void share(Term one, Term other) {
        offer(combined(
                one,
                other,
                one.expression() + " / " + other.expression() + " * 100",
                (a, b) -> a.divide(b, MathContext.DECIMAL128).multiply(HUNDRED),
                2.2));
    }

    private void percent(Term one, Term other, String sign, BinaryOperator<BigDecimal> change) {
        offer(combined(
                one,
                other,
                one.expression() + " * (1 " + sign + " " + other.expression() + " / 100)",
                (a, b) -> a.multiply(change.apply(BigDecimal.ONE, divide(b, HUNDRED))),
                2.6));
        offer(combined(
                one,
                other,
                one.expression() + " * (1 " + sign + " " + other.expression() + ")",
                (a, b) -> a.multiply(change.apply(BigDecimal.ONE, b)),
                2.6));
    }

    private void combine(Term one, String sign, Term other, BinaryOperator<BigDecimal> operation, double cost) {
        offer(combined(one, other, one.expression() + " " + sign + " " + other.expression(), operation, cost));
    }

    /**
     * {@return two numbers in one, or null if the first result already is another than that wanted}
     */
    private @Nullable Term combined(
            Term one, Term other, String expression, BinaryOperator<BigDecimal> operation, double cost) {
        if (first >= 0 && !isFirst(one.values().get(first), other.values().get(first), operation)) {
            return null;
        }
        return joined(one, other, expression, operation, cost);
    }

    private boolean isFirst(@Nullable BigDecimal a, @Nullable BigDecimal b, BinaryOperator<BigDecimal> operation) {
        // Whatever divides, divides by the second.
        if (a == null || b == null || b.signum() == 0) {
            return a != null && b != null;
        }
        BigDecimal value = operation.apply(a, b).setScale(digits, RoundingMode.HALF_UP);
        return value.compareTo(Objects.requireNonNull(results.get(first))) == 0;
    }

    private static Term joined(
            Term one, Term other, String expression, BinaryOperator<BigDecimal> operation, double cost) {
        List<@Nullable BigDecimal> values = new ArrayList<>();
        for (int i = 0; i < one.values().size(); i++) {
            BigDecimal a = one.values().get(i);
            BigDecimal b = other.values().get(i);
            boolean zero = expression.contains(" / ") && b != null && b.signum() == 0;
            values.add(a == null || b == null || zero ? null : operation.apply(a, b));
        }
        return new Term(expression, one.about() + " " + other.about(), values, cost + (one.cost() + other.cost()) / 2);
    }

    private void withConstants(Term term) {
        for (BigDecimal factor : FACTORS) {
            by(term, factor);
        }
        BigDecimal ratio = constant(term, NumberRules::divide);
        if (ratio != null && ratio.precision() <= LONGEST_FACTOR && !FACTORS.contains(ratio)) {
            scale(term, "*", ratio, BigDecimal::multiply, 2.4);
        }
        BigDecimal inverse = constant(term, (want, value) -> divide(value, want));
        if (inverse != null && inverse.precision() <= LONGEST_FACTOR && !FACTORS.contains(inverse)) {
            scale(term, "/", inverse, NumberRules::divide, 2.5);
        }
        BigDecimal difference = constant(term, BigDecimal::subtract);
        if (difference != null && difference.signum() != 0 && difference.precision() <= LONGEST_FACTOR) {
            boolean more = difference.signum() > 0;
            scale(term, more ? "+" : "-", difference.abs(), more ? BigDecimal::add : BigDecimal::subtract, 2.4);
        }
    }

    private void by(Term term, BigDecimal factor) {
        scale(term, "/", factor, NumberRules::divide, 1.2);
        scale(term, "*", factor, BigDecimal::multiply, 1.2);
    }

    private void scale(Term term, String sign, BigDecimal constant, BinaryOperator<BigDecimal> operation, double cost) {
        List<@Nullable BigDecimal> values = new ArrayList<>();
        for (BigDecimal value : term.values()) {
            values.add(value == null ? null : operation.apply(value, constant));
        }
        offer(new Term(
                term.expression() + " " + sign + " " + constant.toPlainString(),
                term.about(),
                values,
                term.cost() + cost));
    }

    /**
     * {@return what two numbers give at each turn, if it is always the same, of three different
     * ones; or null}
     */
    private @Nullable BigDecimal constant(Term term, BinaryOperator<BigDecimal> operation) {
        BigDecimal same = null;
        int seen = 0;
        for (int i = 0; i < results.size(); i++) {
            BigDecimal want = results.get(i);
            BigDecimal value = term.values().get(i);
            if (want == null || value == null) {
                continue;
            }
            if (value.signum() == 0 || want.signum() == 0) {
                return null;
            }
            BigDecimal given = plain(operation.apply(want, value));
            if (same != null && same.compareTo(given) != 0) {
                return null;
            }
            same = given;
            seen++;
        }
        return seen > 2 && wanted.distinct().size() > 2 ? same : null;
    }

    private String text(int turn) {
        return Objects.requireNonNull(wanted.cells().get(turn)).text();
    }

    private void offer(@Nullable Term term) {
        if (term == null) {
            return;
        }
        boolean exact = true;
        boolean printed = true;
        boolean rounded = true;
        boolean any = false;
        boolean shortest = true;
        boolean asNumber = wanted.isAll(Kind.NUMBER);
        for (int i = 0; i < results.size(); i++) {
            BigDecimal want = results.get(i);
            BigDecimal value = term.values().get(i);
            if (want == null || value == null) {
                if (want != null || value != null) {
                    return;
                }
                continue;
            }
            any = true;
            exact &= want.compareTo(value) == 0;
            printed &= exact && text(i).equals(value.toPlainString());
            shortest &= exact && text(i).equals(value.stripTrailingZeros().toPlainString());
            BigDecimal near = value.setScale(digits, RoundingMode.HALF_UP);
            rounded &= near.compareTo(want) == 0
                    && (asNumber || near.toPlainString().equals(text(i)));
            if (!exact && !rounded) {
                return;
            }
        }
        if (!any) {
            return;
        }
        if (exact && (asNumber || printed)) {
            found.accept(Rule.of(term.expression(), term.about(), term.cost()));
        } else if (rounded) {
            String expression = "round(" + term.expression() + (digits > 0 ? ", " + digits : "") + ")";
            found.accept(Rule.of(expression, term.about(), term.cost() + 0.5));
        } else if (shortest) {
            // The shortest form of each.
            String pattern = "0." + "#".repeat(Math.max(1, digits));
            found.accept(
                    Rule.of("format(" + term.expression() + ", '" + pattern + "')", term.about(), term.cost() + 1));
        }
    }
}
