package dev.morphema.function;

import dev.morphema.value.NumberValue;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A pattern for numbers: {@code 0} a digit that is always there, {@code #} one that is there if
 * need be, {@code ,} the mark between thousands, {@code .} the decimal mark, {@code %} a
 * hundredfold; other text around it stays. Immutable.
 */
final class NumberPattern {
    private static final Pattern FORM = Pattern.compile("([^0#,.]*)([#,]*)([0,]*)(?:\\.(0*)(#*))?([^0#,.]*)");

    private final String prefix;
    private final String suffix;
    private final boolean grouped;
    private final int leastWhole;
    private final int leastFraction;
    private final int mostFraction;

    NumberPattern(String pattern) {
        Matcher m = FORM.matcher(pattern);
        if (!looksLike(pattern) || !m.matches()) {
            throw new IllegalArgumentException("This is not a number pattern; patterns look like 0.00 or #,##0.0.");
        }
        String whole = m.group(2) + m.group(3);
        prefix = m.group(1);
        suffix = m.group(6);
        grouped = whole.contains(",");
        if (grouped && whole.length() - whole.lastIndexOf(',') != 4) {
            throw new IllegalArgumentException("The grouping mark stands before three digits, as in #,##0.");
        }
        leastWhole = (int) whole.chars().filter(c -> c == '0').count();
        leastFraction = m.group(4) == null ? 0 : m.group(4).length();
        mostFraction = leastFraction + (m.group(5) == null ? 0 : m.group(5).length());
    }

    /** {@return whether a pattern is meant for numbers: it has a place for a digit} */
    static boolean looksLike(String pattern) {
        return pattern.indexOf('0') >= 0 || pattern.indexOf('#') >= 0;
    }

    String print(NumberValue value, String decimalMark, String groupingMark) {
        BigDecimal number = value.decimal();
        if (prefix.contains("%") || suffix.contains("%")) {
            number = number.movePointRight(2);
        }
        // Rounded first, so that what rounds to zero has no sign.
        number = number.setScale(mostFraction, RoundingMode.HALF_UP);
        String digits = number.abs().toPlainString();
        int point = digits.indexOf('.');
        String whole = point < 0 ? digits : digits.substring(0, point);
        String fraction = point < 0 ? "" : digits.substring(point + 1);
        while (fraction.length() > leastFraction && fraction.endsWith("0")) {
            fraction = fraction.substring(0, fraction.length() - 1);
        }
        if (leastWhole == 0 && whole.equals("0") && !fraction.isEmpty()) {
            whole = "";
        }
        whole = "0".repeat(Math.max(0, leastWhole - whole.length())) + whole;
        StringBuilder out = new StringBuilder(number.signum() < 0 ? "-" : "").append(prefix);
        for (int i = 0; i < whole.length(); i++) {
            if (grouped && i > 0 && (whole.length() - i) % 3 == 0) {
                out.append(groupingMark);
            }
            out.append(whole.charAt(i));
        }
        return out.append(fraction.isEmpty() ? "" : decimalMark + fraction)
                .append(suffix)
                .toString();
    }
}
