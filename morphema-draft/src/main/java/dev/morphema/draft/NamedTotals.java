package dev.morphema.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Counts, sums, averages, least and greatest of what repeats, where a name asks for one. */
final class NamedTotals {
    private static final String COUNT = "count";

    /**
     * A function.
     *
     * @param words any of which asks for it
     */
    private record Total(String function, Set<String> words) {}

    /** The first that is asked for counts: a total count is a count. */
    private static final List<Total> TOTALS = List.of(
            new Total(COUNT, Set.of("count")),
            new Total("avg", Set.of("avg", "average", "mean")),
            new Total("min", Set.of("min", "minimum", "least", "lowest", "smallest")),
            new Total("max", Set.of("max", "maximum", "most", "highest", "greatest", "largest")),
            new Total("sum", Set.of("sum", "total", "overall")));

    /** Words that tell nothing of what is counted. */
    private static final Set<String> FILLING = Set.of("of", "in", "all", "per");

    private static final double LIKE = 0.47;
    /** Several of them are more often counted than not. */
    private static final double PLURAL = 0.75;
    /** What is summed up is not named, and there is one thing only that could be. */
    private static final double ONLY = 0.6;

    /**
     * An expression.
     *
     * @param likeness how much its name is like that of the field
     */
    record Found(String expression, double likeness) {}

    private NamedTotals() {}

    /** {@return whether a name asks for a total} */
    static boolean isAsked(String name) {
        return function(Names.words(name)) != null;
    }

    /**
     * {@return what a field can be made of}
     *
     * @param number whether it surely is one
     */
    static Optional<Found> find(String name, boolean number, List<Repeat> repeats) {
        List<String> words = Names.words(name);
        String function = function(words);
        if (function == null) {
            return number ? counted(name, repeats) : Optional.empty();
        }
        List<String> rest = new ArrayList<>(words);
        rest.removeIf(word -> isPartOf(function, word) || FILLING.contains(word));
        List<Term> terms = new Aggregates(repeats)
                .terms().stream()
                        .filter(term -> term.expression().startsWith(function + "(")
                                && !term.expression().contains("distinct(")
                                && !term.expression().contains(" * "))
                        .toList();
        if (rest.isEmpty()) {
            List<Term> near =
                    terms.stream().filter(term -> term.cost() == least(terms)).toList();
            return near.size() == 1 ? Optional.of(new Found(near.get(0).expression(), ONLY)) : Optional.empty();
        }
        return best(String.join(" ", rest), function, terms);
    }

    private static double least(List<Term> terms) {
        return terms.stream().mapToDouble(Term::cost).min().orElse(0);
    }

    private static @Nullable String function(List<String> words) {
        for (Total total : TOTALS) {
            if (words.stream().anyMatch(total.words()::contains)) {
                return total.function();
            }
        }
        boolean numbered = words.size() > 2
                && words.get(0).equals("number")
                && words.get(1).equals("of");
        return numbered ? COUNT : null;
    }

    private static boolean isPartOf(String function, String word) {
        return TOTALS.stream()
                .anyMatch(total ->
                        total.function().equals(function) && total.words().contains(word));
    }

    private static Optional<Found> best(String about, String function, List<Term> terms) {
        Found best = null;
        for (Term term : terms) {
            double likeness = Names.likeness(about, term.about().substring(function.length() + 1)) - term.cost() * 0.05;
            if (likeness >= LIKE && (best == null || likeness > best.likeness())) {
                best = new Found(term.expression(), likeness);
            }
        }
        return Optional.ofNullable(best);
    }

    /** A number whose name says that there are several of something is how many there are. */
    private static Optional<Found> counted(String name, List<Repeat> repeats) {
        List<String> words = Names.words(name);
        boolean plural = !words.isEmpty() && !name.toLowerCase(Locale.ROOT).endsWith(words.get(words.size() - 1));
        Found best = null;
        for (Repeat repeat : plural ? repeats : List.<Repeat>of()) {
            double likeness = PLURAL * Names.likeness(name, repeat.name()) - repeat.cost() * 0.05;
            if (likeness >= LIKE && (best == null || likeness > best.likeness())) {
                best = new Found(COUNT + "(" + repeat.expression() + ")", likeness);
            }
        }
        return Optional.ofNullable(best);
    }
}
