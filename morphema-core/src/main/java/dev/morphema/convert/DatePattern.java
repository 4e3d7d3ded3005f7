package dev.morphema.convert;

import dev.morphema.value.Kind;
import java.time.DateTimeException;
import java.time.chrono.IsoChronology;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.format.SignStyle;
import java.time.format.TextStyle;
import java.time.temporal.ChronoField;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.TemporalField;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A pattern for dates and times, with the letters of {@code java.time}. Names of months and days
 * are English and weeks are ISO 8601 weeks on every machine: the tables are our own, since those of
 * the Java runtime differ by version and locale. Immutable.
 */
public final class DatePattern {
    private static final List<String> MONTHS = List.of(
            "January",
            "February",
            "March",
            "April",
            "May",
            "June",
            "July",
            "August",
            "September",
            "October",
            "November",
            "December");
    private static final List<String> DAYS =
            List.of("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday");

    private final String pattern;
    private final DateTimeFormatter formatter;
    private final @Nullable FixedPattern fixed;

    /**
     * @throws IllegalArgumentException if the text is no pattern; the message says why
     */
    public DatePattern(String pattern) {
        this.pattern = pattern;
        Compiler compiler = new Compiler(pattern);
        this.formatter = compiler.formatter();
        this.fixed = FixedPattern.of(pattern);
    }

    /**
     * {@return the fields of a text}
     *
     * @throws DateTimeException if the text does not follow the pattern
     */
    public TemporalAccessor parse(String text) {
        TemporalAccessor parsed = fixed == null ? null : fixed.parse(text);
        return parsed == null ? formatter.parse(text) : parsed;
    }

    /** {@return the fields of a text in ASCII, or null if the general way is to read it} */
    @Nullable
    TemporalAccessor parse(byte[] text, int from, int to) {
        return fixed == null ? null : fixed.parse(text, from, to);
    }

    /** As {@link FixedPattern#printIso}; -1 also if the pattern has no fixed places. */
    int printIso(Kind kind, byte[] text, int from, int to, byte[] into, int at) {
        return fixed == null ? -1 : fixed.printIso(kind, text, from, to, into, at);
    }

    /**
     * {@return the text of a date or time}
     *
     * @throws DateTimeException if it lacks a field of the pattern
     */
    public String print(TemporalAccessor value) {
        String text = fixed == null ? null : fixed.print(value);
        return text == null ? formatter.format(value) : text;
    }

    @Override
    public String toString() {
        return pattern;
    }

    /** Goes through the letters of one pattern. */
    private static final class Compiler {
        /** Each level copies what was read so far. */
        private static final int MOST_DEEP = 20;

        private final String pattern;
        private final DateTimeFormatterBuilder builder = new DateTimeFormatterBuilder().parseCaseInsensitive();
        private int open;
        private boolean week;
        private boolean day;

        Compiler(String pattern) {
            this.pattern = pattern;
        }

        DateTimeFormatter formatter() {
            for (int i = 0; i < pattern.length(); ) {
                char c = pattern.charAt(i);
                if (c == '\'') {
                    i = quoted(i);
                } else if (c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z') {
                    int end = i;
                    while (end < pattern.length() && pattern.charAt(end) == c) {
                        end++;
                    }
                    letters(c, end - i);
                    i = end;
                } else {
                    mark(c);
                    i++;
                }
            }
            if (open != 0) {
                throw new IllegalArgumentException("A [ in the date pattern is not closed.");
            }
            if (week && !day) {
                builder.parseDefaulting(ChronoField.DAY_OF_WEEK, 1);
            }
            return builder.toFormatter(Locale.ROOT)
                    .withResolverStyle(ResolverStyle.STRICT)
                    .withChronology(IsoChronology.INSTANCE);
        }

        private int quoted(int from) {
            int i = from + 1;
            if (i < pattern.length() && pattern.charAt(i) == '\'') {
                builder.appendLiteral('\'');
                return i + 1;
            }
            StringBuilder text = new StringBuilder();
            while (i < pattern.length()) {
                if (pattern.charAt(i) != '\'') {
                    text.append(pattern.charAt(i++));
                } else if (i + 1 < pattern.length() && pattern.charAt(i + 1) == '\'') {
                    text.append('\'');
                    i += 2;
                } else {
                    builder.appendLiteral(text.toString());
                    return i + 1;
                }
            }
            throw new IllegalArgumentException("A quote in the date pattern is not closed.");
        }

        private void mark(char c) {
            if (c == '[') {
                if (++open > MOST_DEEP) {
                    throw new IllegalArgumentException(
                            "The optional parts of the date pattern are nested more than " + MOST_DEEP + " deep.");
                }
                builder.optionalStart();
            } else if (c == ']') {
                if (open-- == 0) {
                    throw new IllegalArgumentException("A ] in the date pattern has no matching [.");
                }
                builder.optionalEnd();
            } else {
                builder.appendLiteral(c);
            }
        }

        private void letters(char letter, int count) {
            switch (letter) {
                case 'y', 'u' -> year(ChronoField.YEAR, count);
                case 'Y' -> year(IsoFields.WEEK_BASED_YEAR, count);
                case 'M', 'L' -> named(ChronoField.MONTH_OF_YEAR, letter, MONTHS, count, 3);
                case 'Q', 'q' -> number(IsoFields.QUARTER_OF_YEAR, letter, count, 1);
                case 'w' -> {
                    week = true;
                    number(IsoFields.WEEK_OF_WEEK_BASED_YEAR, letter, count, 2);
                }
                case 'E' -> {
                    day = true;
                    named(ChronoField.DAY_OF_WEEK, letter, DAYS, Math.max(count, 3), 3);
                }
                case 'e', 'c' -> {
                    day = true;
                    number(ChronoField.DAY_OF_WEEK, letter, count, 1);
                }
                case 'd' -> number(ChronoField.DAY_OF_MONTH, letter, count, 2);
                case 'D' -> number(ChronoField.DAY_OF_YEAR, letter, count, 3);
                case 'H' -> number(ChronoField.HOUR_OF_DAY, letter, count, 2);
                case 'k' -> number(ChronoField.CLOCK_HOUR_OF_DAY, letter, count, 2);
                case 'K' -> number(ChronoField.HOUR_OF_AMPM, letter, count, 2);
                case 'h' -> number(ChronoField.CLOCK_HOUR_OF_AMPM, letter, count, 2);
                case 'a' -> builder.appendText(ChronoField.AMPM_OF_DAY, Map.of(0L, "AM", 1L, "PM"));
                case 'm' -> number(ChronoField.MINUTE_OF_HOUR, letter, count, 2);
                case 's' -> number(ChronoField.SECOND_OF_MINUTE, letter, count, 2);
                case 'S' -> builder.appendFraction(ChronoField.NANO_OF_SECOND, count, count, false);
                case 'X' -> offset(count, "Z");
                case 'x' -> offset(count, count == 1 ? "+00" : count == 2 ? "+0000" : "+00:00");
                case 'Z' -> builder.appendOffset("+HHMM", "+0000");
                case 'V' -> builder.appendZoneOrOffsetId();
                case 'O' -> builder.appendLocalizedOffset(TextStyle.SHORT);
                default ->
                    throw new IllegalArgumentException("The letter " + letter
                            + " has no meaning in a date pattern; text stands in quotes inside the pattern.");
            }
        }

        private void year(TemporalField field, int count) {
            if (count == 2) {
                builder.appendValueReduced(field, 2, 2, 2000);
            } else if (count == 4) {
                builder.appendValue(field, 4);
            } else {
                builder.appendValue(field, count, 10, SignStyle.NORMAL);
            }
        }

        private void number(TemporalField field, char letter, int count, int most) {
            if (count > most) {
                String letters = String.valueOf(letter);
                throw new IllegalArgumentException("The date pattern has " + letters.repeat(count) + " where "
                        + letters.repeat(most) + " is the most that has a meaning.");
            }
            if (count == 1) {
                builder.appendValue(field, 1, most, SignStyle.NOT_NEGATIVE);
            } else {
                builder.appendValue(field, count);
            }
        }

        private void named(TemporalField field, char letter, List<String> names, int count, int shortCount) {
            if (count < shortCount) {
                number(field, letter, count, 2);
                return;
            }
            Map<Long, String> texts = new HashMap<>();
            for (int i = 0; i < names.size(); i++) {
                texts.put(i + 1L, count == shortCount ? names.get(i).substring(0, 3) : names.get(i));
            }
            builder.appendText(field, texts);
        }

        private void offset(int count, String zero) {
            builder.appendOffset(count == 1 ? "+HHmm" : count == 2 ? "+HHMM" : "+HH:MM", zero);
        }
    }
}
