package dev.morphema.problem;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Finds what the author may have meant. */
public final class NearNames {
    private static final int MOST = 3;
    private static final int MOST_LISTED = 12;

    /** Longer names take too long to compare, and nobody has misspelt them. */
    private static final int MOST_COMPARED = 400;

    private static final String MEANT = "did you mean ";
    private static final String OR = " or ";
    private static final Pattern NAME = Pattern.compile("[\\p{L}_][\\p{L}\\p{N}_-]*");

    private NearNames() {}

    /**
     * {@return the name that a {@linkplain #proposal proposal} has first}, if it is written as it
     * is wherever the other one stands; empty for a help that is no such proposal
     */
    static Optional<String> replacement(@Nullable String help) {
        if (help == null || !help.startsWith(MEANT) || help.indexOf('?') < 0) {
            return Optional.empty();
        }
        String first = help.substring(MEANT.length(), help.indexOf('?')).split(OR, 2)[0];
        return Optional.of(first).filter(name -> NAME.matcher(name).matches());
    }

    /** {@return up to three names that are spelt much like the given one, the nearest first} */
    public static List<String> near(String name, Collection<String> known) {
        // Every name of one letter is one letter away from every other.
        int allowed = name.length() < 2 ? 0 : Math.max(1, name.length() / 3);
        Map<String, Integer> distances = known.stream()
                .distinct()
                .filter(k -> !k.equals(name) && k.length() + name.length() <= MOST_COMPARED)
                .collect(Collectors.toMap(k -> k, k -> distance(fold(name), fold(k))));
        return distances.entrySet().stream()
                .filter(e -> e.getValue() <= allowed)
                .sorted(Map.Entry.<String, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .limit(MOST)
                .map(Map.Entry::getKey)
                .toList();
    }

    /**
     * {@return a proposal such as «did you mean a or b?», or, if none is near, what there is; null
     * if there is nothing}
     */
    public static Optional<String> proposal(String name, Collection<String> known) {
        List<String> near = near(name, known);
        if (!near.isEmpty()) {
            return Optional.of(MEANT + String.join(OR, near) + "?");
        }
        // The own text of an element has no name.
        List<String> sorted = known.stream()
                .filter(there -> !there.isEmpty())
                .distinct()
                .sorted(Comparator.naturalOrder())
                .toList();
        if (sorted.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of("there is " + listed(sorted));
    }

    /** {@return names as a sentence lists them}: the first of them, if there are many. */
    public static String listed(Collection<String> names) {
        String shown = names.stream().limit(MOST_LISTED).collect(Collectors.joining(", "));
        return shown + (names.size() > MOST_LISTED ? ", …" : "");
    }

    /** Whether it is an attribute, and how its words are joined, is what is mixed up most. */
    private static String fold(String name) {
        return name.toLowerCase(Locale.ROOT).replace("_", "").replace("-", "").replace("@", "");
    }

    /** Edit distance with insertion, removal, replacement and the swap of neighbours. */
    private static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int cost = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                int best = Math.min(Math.min(d[i - 1][j], d[i][j - 1]) + 1, d[i - 1][j - 1] + cost);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    best = Math.min(best, d[i - 2][j - 2] + 1);
                }
                d[i][j] = best;
            }
        }
        return d[a.length()][b.length()];
    }
}
