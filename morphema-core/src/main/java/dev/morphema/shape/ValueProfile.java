package dev.morphema.shape;

import dev.morphema.value.Comparison;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What the single values at one place look like. Takes little memory for any number of them. Not
 * thread-safe.
 */
public final class ValueProfile {
    /** So many different values may be a list of codes. */
    private static final int MOST_CODES = 12;

    private static final int MOST_COUNTED = 50;
    /** A longer text is no code, and is cut where it is shown. */
    private static final int LONGEST_COUNTED = 60;

    private static final List<Map.Entry<String, String>> TRUTHS = List.of(
            Map.entry("Y", "N"),
            Map.entry("J", "N"),
            Map.entry("yes", "no"),
            Map.entry("ja", "nein"),
            Map.entry("true", "false"),
            Map.entry("TRUE", "FALSE"),
            Map.entry("1", "0"),
            Map.entry("T", "F"));

    private final TypeCandidates types = new TypeCandidates();
    private final Map<String, Long> counted = new LinkedHashMap<>();
    private boolean tooMany;
    private long count;
    private long texts;
    private long blank;
    private int longest;
    private @Nullable NumberValue least;
    private @Nullable NumberValue most;

    /** One more value: a text, a number or a boolean. */
    void learn(Value value) {
        if (!isKnown(value)) {
            learnNew(value, number(value));
        }
    }

    /** {@return what a value is as a number, or null if it is none} */
    static @Nullable NumberValue number(Value value) {
        return value instanceof TextValue text
                ? NumberValue.parse(text.text()).orElse(null)
                : value instanceof NumberValue number ? number : null;
    }

    /**
     * One more value: a text, a number or a boolean; says whether it is one of those that came
     * before, of which nothing is left to learn.
     */
    boolean isKnown(Value value) {
        count++;
        String text = value.toString();
        if (counted.computeIfPresent(text, (known, times) -> times + 1) != null) {
            if (value instanceof TextValue) {
                texts++;
                blank += WhiteSpace.isBlank(text) ? 1 : 0;
            }
            return true;
        }
        return false;
    }

    /**
     * What a value looks like that may be a new one.
     *
     * @param number what it is as a number, or null if it is none
     */
    void learnNew(Value value, @Nullable NumberValue number) {
        String text = value.toString();
        longest = Math.max(longest, text.codePointCount(0, text.length()));
        if (value instanceof TextValue) {
            learnText(text);
        }
        if (number != null) {
            learnNumber(number);
        }
        if (counted.size() < MOST_COUNTED) {
            counted.merge(
                    text.length() > LONGEST_COUNTED ? text.substring(0, LONGEST_COUNTED) + "…" : text, 1L, Long::sum);
        } else {
            tooMany = true;
        }
    }

    private void learnText(String text) {
        texts++;
        if (WhiteSpace.isBlank(text)) {
            blank++;
        } else {
            types.learn(text);
        }
    }

    private void learnNumber(NumberValue number) {
        least = least == null || Comparison.compare(number, least) < 0 ? number : least;
        most = most == null || Comparison.compare(number, most) > 0 ? number : most;
    }

    /** {@return how many values there were} */
    public long count() {
        return count;
    }

    /** {@return how many of them are texts without any but white space} */
    public long blank() {
        return blank;
    }

    /** {@return the characters of the longest} */
    public int longest() {
        return longest;
    }

    /**
     * {@return the types that a source can declare for all texts here, as a mapping writes them,
     * the most likely first}; none if they are texts of no other type, or no texts
     */
    public List<String> types() {
        if (texts == 0 || texts == blank) {
            return List.of();
        }
        Optional<String> truth = truth();
        List<String> fitting = new ArrayList<>(truth.map(List::of).orElse(List.of()));
        types.written().stream().filter(type -> !fitting.contains(type)).forEach(fitting::add);
        // Of 0 and 1 more often numbers are meant.
        if (fitting.size() > 1 && fitting.get(0).equals("boolean('1', '0')")) {
            fitting.add(fitting.remove(0));
        }
        return fitting;
    }

    private Optional<String> truth() {
        Set<String> found = counted.keySet();
        return TRUTHS.stream()
                .filter(pair -> !tooMany
                        && found.size() == 2
                        && found.contains(pair.getKey())
                        && found.contains(pair.getValue()))
                .map(pair -> pair.getKey().equals("true")
                        ? "boolean"
                        : "boolean('" + pair.getKey() + "', '" + pair.getValue() + "')")
                .findFirst();
    }

    /**
     * {@return whether few different values come again and again, as codes do}: each in the order
     * in which it came first, and how often
     */
    public Optional<Map<String, Long>> codes() {
        boolean few = !tooMany && counted.size() <= MOST_CODES && count >= 2L * counted.size() && counted.size() > 1;
        return few ? Optional.of(new LinkedHashMap<>(counted)) : Optional.empty();
    }

    /** {@return the one value that all are, if there are several} */
    public Optional<String> constant() {
        return !tooMany && counted.size() == 1 && count > 1
                ? Optional.of(counted.keySet().iterator().next())
                : Optional.empty();
    }

    /** {@return whether no value came twice; unknown, and so false, of more than a few} */
    public boolean areDifferent() {
        return !tooMany && count > 1 && counted.values().stream().allMatch(times -> times == 1);
    }

    /** {@return some values, the first that came} */
    public List<String> examples(int atMost) {
        return counted.keySet().stream()
                .filter(value -> !WhiteSpace.isBlank(value))
                .limit(atMost)
                .toList();
    }

    /** {@return the least number, of numbers and of texts that read as numbers} */
    public Optional<NumberValue> least() {
        return Optional.ofNullable(least);
    }

    /** {@return the largest number} */
    public Optional<NumberValue> most() {
        return Optional.ofNullable(most);
    }
}
