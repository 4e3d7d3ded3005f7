package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Span;
import org.jspecify.annotations.Nullable;

/** Letters of date patterns that have another meaning than the one that is likely meant. */
final class PatternSlips {
    private PatternSlips() {}

    /** {@return a warning of a pattern that would read or write wrong dates, or null} */
    static @Nullable Problem in(String pattern, Span span) {
        String letters = pattern.replaceAll("'[^']*'", "");
        String meant = pattern;
        String why = null;
        if (letters.contains("Y") && !letters.contains("w") && !letters.contains("e")) {
            meant = meant.replace('Y', 'y');
            why = "Y is the year to which a week belongs, the year of a date is y";
        }
        if (letters.contains("D")
                && (letters.contains("M") || letters.contains("m") || letters.contains("DD"))
                && !letters.contains("DDD")) {
            meant = meant.replace('D', 'd');
            why = why == null ? "D is the day of the year, the day of the month is d" : why;
        }
        boolean time = letters.contains("H") || letters.contains("h");
        boolean month = letters.contains("M") || letters.contains("L");
        if (letters.contains("m")
                && !time
                && !month
                && (letters.contains("y") || letters.contains("Y") || letters.contains("d"))) {
            meant = meant.replace('m', 'M');
            why = why == null ? "m is the minute, the month is M" : why;
        }
        return why == null
                ? null
                : span.warning(Code.DOUBTFUL_PATTERN, "In the pattern of a date " + why + ".")
                        .withHelp("it is probably '" + meant + "'");
    }
}
