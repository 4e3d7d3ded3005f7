package dev.morphema.draft;

import java.util.List;

/** What a draft says of its rules: how sure they are, and on how many values they were tried. */
final class Remarks {
    /** What is said of a rule for which there was one value. */
    static final String ONCE = "a guess: seen once";

    private static final int EXAMPLES = 3;
    private static final int LONGEST = 40;

    private Remarks() {}

    /** {@return how sure a rule is that gives the values that are wanted} */
    static String of(Rule rule, Wanted wanted) {
        int count = wanted.count();
        int distinct = wanted.distinct().size();
        if (rule.about().isEmpty()) {
            return count == 1 ? ONCE : "always so, in " + count + " values";
        }
        if (distinct == 1) {
            return count == 1 ? ONCE : "a guess: all " + count + " values are the same";
        }
        boolean simple = rule.cost() < 3;
        return (simple ? "fits " : "likely, fits ") + count + " of " + count + " values";
    }

    /** {@return how sure a rule is that gives some lists} */
    static String ofLists(List<List<Item>> lists) {
        long filled = lists.stream().filter(list -> !list.isEmpty()).count();
        return filled < 2 ? "a guess: one list was seen" : "fits " + filled + " of " + filled + " lists";
    }

    /** {@return what a field should hold for which there is no rule} */
    static String wanted(Wanted wanted) {
        List<String> examples = wanted.distinct().stream()
                .limit(EXAMPLES)
                .map(text -> text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text)
                .toList();
        return examples.isEmpty() ? "nothing is known of it" : "expected: " + String.join(", ", examples);
    }
}
