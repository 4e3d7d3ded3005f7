package dev.morphema.cli;

import java.time.Duration;
import java.time.format.DateTimeParseException;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads a period of time, such as {@code 30s}, {@code 5m}, {@code 1h} or {@code PT1H} (ISO 8601).
 */
final class Period {
    private static final Pattern SHORT = Pattern.compile("([1-9]\\d{0,6})(ms|s|m|h|d)");
    private static final Map<String, Duration> UNITS = Map.of(
            "ms", Duration.ofMillis(1),
            "s", Duration.ofSeconds(1),
            "m", Duration.ofMinutes(1),
            "h", Duration.ofHours(1),
            "d", Duration.ofDays(1));

    private Period() {}

    /**
     * {@return the period}
     *
     * @throws dev.morphema.problem.ProblemException if the text is none
     */
    static Duration of(String text) {
        Matcher matcher = SHORT.matcher(text);
        if (matcher.matches()) {
            return UNITS.get(matcher.group(2)).multipliedBy(Long.parseLong(matcher.group(1)));
        }
        try {
            Duration duration = Duration.parse(text);
            if (!duration.isNegative() && !duration.isZero()) {
                return duration;
            }
        } catch (DateTimeParseException e) {
            // told below
        }
        throw TerminalCommand.usage("This is no period of time: " + text + ".", "--every 30s, 5m, 1h or PT1H30M");
    }
}
