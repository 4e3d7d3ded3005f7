package dev.morphema.draft;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The ways in which texts are dates and numbers. */
final class Forms {
    /**
     * A way to write numbers.
     *
     * @param arguments of the type number, as a mapping writes them; empty for the plain way
     */
    record NumberForm(String arguments, char decimal, char grouping) {
        /** {@return the number that a text is, or null} */
        @Nullable
        BigDecimal read(@Nullable String text) {
            if (text == null || text.isBlank()) {
                return null;
            }
            String plain = text.trim();
            if (grouping != 0) {
                if (!plain.matches("-?[0-9]{1,3}(\\" + grouping + "[0-9]{3})*(\\" + decimal + "[0-9]+)?")) {
                    return null;
                }
                plain = plain.replace(String.valueOf(grouping), "");
            }
            if (decimal != '.') {
                if (plain.indexOf('.') >= 0) {
                    return null;
                }
                plain = plain.replace(decimal, '.');
            }
            return Cell.number(Cell.text(plain));
        }
    }

    static final NumberForm PLAIN = new NumberForm("", '.', (char) 0);
    private static final List<NumberForm> NUMBERS = List.of(
            PLAIN,
            new NumberForm("','", ',', (char) 0),
            new NumberForm("',', '.'", ',', '.'),
            new NumberForm("'.', ','", '.', ','));

    /** A way to write dates, times or both. */
    enum Moment {
        DATE,
        TIME,
        DATETIME
    }

    /** A pattern of dates. Immutable. */
    static final class DateForm {
        private final Moment moment;
        private final String pattern;
        private final String outline;
        private final DateTimeFormatter formatter;

        /** @param pattern in the letters of the language; empty for ISO 8601 */
        DateForm(Moment moment, String pattern) {
            this.moment = moment;
            this.pattern = pattern;
            String whole = pattern.isEmpty() ? iso(moment) : pattern;
            this.outline = outline(whole.replaceAll("MMM+|EEE+|a", "ä")
                    .replaceAll("'([^']*)'", "ä")
                    .replaceAll("[yMdHhms]", "0"));
            this.formatter = DateTimeFormatter.ofPattern(
                            whole.replace("yyyy", "uuuu").replace("yy", "uu"), Locale.ENGLISH)
                    .withResolverStyle(ResolverStyle.STRICT);
        }

        private static String iso(Moment moment) {
            return switch (moment) {
                case DATE -> "yyyy-MM-dd";
                case TIME -> "HH:mm:ss";
                case DATETIME -> "yyyy-MM-dd'T'HH:mm:ss";
            };
        }

        /**
         * {@return a text with one letter for each run of letters, and one digit for each of
         * digits}
         */
        static String outline(String text) {
            return text.replaceAll("[0-9]+", "0").replaceAll("\\p{L}+", "ä");
        }

        Moment moment() {
            return moment;
        }

        String pattern() {
            return pattern;
        }

        /** {@return whether a text of an outline may be of this form} */
        boolean mayBe(String outlineOfText) {
            return outline.equals(outlineOfText);
        }

        /** {@return the date or time that a text is, or null} */
        @Nullable
        TemporalAccessor read(String text) {
            try {
                return switch (moment) {
                    case DATE -> LocalDate.parse(text, formatter);
                    case TIME -> LocalTime.parse(text, formatter);
                    case DATETIME -> LocalDateTime.parse(text, formatter);
                };
            } catch (DateTimeException e) {
                return null;
            }
        }

        /** {@return a date or time in this way, or null if it has not what is written} */
        @Nullable
        String write(TemporalAccessor value) {
            try {
                return formatter.format(value);
            } catch (DateTimeException e) {
                return null;
            }
        }

        /** {@return the function that reads it, as a mapping calls it} */
        String function() {
            return moment.name().toLowerCase(Locale.ROOT);
        }
    }

    private static final List<String> DAYS = List.of(
            "dd.MM.yyyy",
            "d.M.yyyy",
            "dd/MM/yyyy",
            "MM/dd/yyyy",
            "d/M/yyyy",
            "M/d/yyyy",
            "yyyy/MM/dd",
            "dd-MM-yyyy",
            "MM-dd-yyyy",
            "yyyyMMdd",
            "dd.MM.yy",
            "dd/MM/yy",
            "MM/dd/yy",
            "yyMMdd",
            "d MMM yyyy",
            "dd MMM yyyy",
            "dd-MMM-yyyy",
            "MMM d, yyyy",
            "d MMMM yyyy",
            "MMMM d, yyyy",
            "EEE, d MMM yyyy");
    private static final List<String> CLOCKS = List.of("HH:mm", "HH:mm:ss", "HHmm", "HHmmss", "h:mm a");
    /** One for each clock that is kept by many; others show the same time and are as right. */
    private static final List<String> ZONES = List.of(
            "UTC",
            "Europe/London",
            "Europe/Oslo",
            "Europe/Helsinki",
            "America/New_York",
            "America/Chicago",
            "America/Denver",
            "America/Los_Angeles",
            "America/Sao_Paulo",
            "Asia/Dubai",
            "Asia/Kolkata",
            "Asia/Shanghai",
            "Asia/Tokyo",
            "Australia/Sydney");

    private static final Pattern POINT =
            Pattern.compile("[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9:]{8}(Z|[-+][0-9]{2}:[0-9]{2})");
    private static final List<DateForm> DATES = dates();

    private Forms() {}

    private static List<DateForm> dates() {
        List<DateForm> all = new ArrayList<>();
        all.add(new DateForm(Moment.DATE, ""));
        DAYS.forEach(day -> all.add(new DateForm(Moment.DATE, day)));
        all.add(new DateForm(Moment.DATETIME, ""));
        List<String> days = new ArrayList<>(DAYS);
        days.add(0, "yyyy-MM-dd");
        for (String day : days) {
            for (String clock : CLOCKS) {
                all.add(new DateForm(Moment.DATETIME, day + " " + clock));
                all.add(new DateForm(Moment.DATETIME, day + "'T'" + clock));
                if (day.equals("yyyyMMdd")) {
                    all.add(new DateForm(Moment.DATETIME, day + clock));
                }
            }
        }
        all.add(new DateForm(Moment.TIME, ""));
        CLOCKS.forEach(clock -> all.add(new DateForm(Moment.TIME, clock)));
        return all;
    }

    /** {@return the ways in which all texts are numbers, the plainest first} */
    static List<NumberForm> numbers(Iterable<String> texts) {
        List<NumberForm> found = new ArrayList<>();
        for (NumberForm form : NUMBERS) {
            boolean all = true;
            boolean any = false;
            for (String text : texts) {
                any = true;
                all = all && form.read(text) != null;
            }
            if (any && all) {
                found.add(form);
            }
        }
        return found;
    }

    /** {@return the ways in which all texts are dates or times} */
    static List<DateForm> dates(List<String> texts) {
        if (texts.isEmpty() || texts.stream().anyMatch(text -> text.length() < 4 || text.length() > 40)) {
            return List.of();
        }
        String outline = DateForm.outline(texts.get(0));
        return DATES.stream()
                .filter(form -> form.mayBe(outline) && texts.stream().allMatch(text -> form.read(text) != null))
                .toList();
    }

    /** {@return the zone whose clock shows some local times at some points in time, or null} */
    static @Nullable String zone(DateForm form, List<String> local, List<String> points) {
        if (form.moment() != Moment.DATETIME
                || points.stream().anyMatch(point -> !POINT.matcher(point).matches())) {
            return null;
        }
        for (String zone : ZONES) {
            boolean all = true;
            for (int i = 0; all && i < local.size(); i++) {
                all = points.get(i).equals(point((LocalDateTime) form.read(local.get(i)), ZoneId.of(zone)));
            }
            if (all) {
                return zone;
            }
        }
        return null;
    }

    private static @Nullable String point(@Nullable LocalDateTime local, ZoneId zone) {
        return local == null
                ? null
                : DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ssXXX").format(local.atZone(zone));
    }
}
