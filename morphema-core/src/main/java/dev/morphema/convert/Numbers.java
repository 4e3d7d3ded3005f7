package dev.morphema.convert;

import dev.morphema.problem.Code;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.math.BigDecimal;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/** Reads numbers. */
public final class Numbers {
    private static final Pattern EXPONENT = Pattern.compile("[-+]?[0-9]+(\\.[0-9]+)?[eE][-+]?[0-9]{1,4}");
    private static final Pattern FIRST_GROUP = Pattern.compile("[-+]?[0-9]{1,3}");

    private Numbers() {}

    /**
     * {@return a value as a number}
     *
     * @throws dev.morphema.problem.ProblemException if it is none
     */
    public static NumberValue number(Value value) {
        if (value instanceof NumberValue number) {
            return number;
        }
        if (value instanceof TextValue text) {
            return NumberValue.parse(text.text())
                    .orElseThrow(() ->
                            Faults.fault(Code.NOT_A_NUMBER, "This text is not a number.", value, help(text.text())));
        }
        throw Faults.fault(
                Code.NOT_A_NUMBER, "Expected a number, found " + value.kind().words() + ".", value, null);
    }

    /**
     * {@return a value as a number that was written with a certain decimal mark}
     *
     * @param decimal the mark before the fraction
     * @param grouping the mark between thousands, or "" if there is none
     * @throws dev.morphema.problem.ProblemException if it is none
     */
    public static NumberValue number(Value value, String decimal, String grouping) {
        if (!(value instanceof TextValue text)) {
            return number(value);
        }
        String plain = WhiteSpace.trim(text.text());
        if (!grouping.isEmpty()) {
            plain = withoutGroups(plain, decimal, grouping);
        }
        if (!decimal.equals(".")) {
            plain = plain.indexOf('.') >= 0 ? "" : plain.replace(decimal, ".");
        }
        return NumberValue.parse(plain)
                .or(withExponent(plain))
                .orElseThrow(() -> Faults.fault(
                        Code.NOT_A_NUMBER,
                        decimal.equals(".")
                                ? "This text is not a number."
                                : "This text is not a number with the decimal mark \"" + decimal + "\".",
                        value,
                        decimal.equals(".") ? help(text.text()) : null));
    }

    /** Only where a number is declared: elsewhere 1E5 is more likely a code. */
    private static Supplier<Optional<NumberValue>> withExponent(String text) {
        return () -> {
            try {
                return EXPONENT.matcher(text).matches()
                        ? Optional.of(NumberValue.of(new BigDecimal(text)))
                        : Optional.empty();
            } catch (ArithmeticException e) {
                return Optional.empty();
            }
        };
    }

    /**
     * Marks between thousands count only where they stand before three digits; elsewhere the text
     * is no number.
     */
    private static String withoutGroups(String text, String decimal, String grouping) {
        int end = text.indexOf(decimal);
        String whole = end < 0 ? text : text.substring(0, end);
        String rest = end < 0 ? "" : text.substring(end);
        StringBuilder digits = new StringBuilder();
        int mark = whole.indexOf(grouping);
        if (mark >= 0 && !FIRST_GROUP.matcher(whole.substring(0, mark)).matches()) {
            return "";
        }
        int from = 0;
        while (mark >= 0) {
            digits.append(whole, from, mark);
            from = mark + grouping.length();
            mark = whole.indexOf(grouping, from);
            int groupEnd = mark < 0 ? whole.length() : mark;
            if (groupEnd - from != 3) {
                return "";
            }
        }
        return digits.append(whole, from, whole.length()).append(rest).toString();
    }

    private static String help(String text) {
        return WhiteSpace.trim(text).matches("[-+]?[\\d.]*,\\d+")
                ? "for a decimal comma give the field the type number(',')"
                : WhiteSpace.isBlank(text)
                        ? "a blank text can be left out by filled(x)"
                        : "numbers are written like -12.50";
    }
}
