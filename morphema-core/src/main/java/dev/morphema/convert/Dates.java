package dev.morphema.convert;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.TemporalQueries;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Reads and prints dates and times. Without a pattern they are written as in ISO 8601. */
public final class Dates {
    private static final DateTimeFormatter ISO_DATETIME = new DateTimeFormatterBuilder()
            .append(DateTimeFormatter.ISO_LOCAL_DATE)
            .appendLiteral('T')
            .append(DateTimeFormatter.ISO_LOCAL_TIME)
            .optionalStart()
            .appendOffset("+HH:mm:ss", "Z")
            .optionalEnd()
            .optionalStart()
            .appendOffset("+HHmm", "Z")
            .optionalEnd()
            .toFormatter(Locale.ROOT)
            .withResolverStyle(ResolverStyle.STRICT);

    private static final BigDecimal THOUSAND = BigDecimal.valueOf(1000);

    private Dates() {}

    /**
     * {@return a value as a date; a datetime gives the date of its own clock}
     *
     * @param pattern how a text is written, or null for ISO 8601
     * @throws dev.morphema.problem.ProblemException if it is none
     */
    public static DateValue date(Value value, @Nullable DatePattern pattern) {
        if (value instanceof DateValue date) {
            return date;
        }
        if (value instanceof DateTimeValue datetime) {
            return new DateValue(datetime.local().toLocalDate());
        }
        TemporalAccessor parsed = parse(value, pattern, DateTimeFormatter.ISO_LOCAL_DATE, "a date", "2026-03-05");
        DateValue read = date(parsed);
        if (read == null) {
            throw incomplete(value, "a date");
        }
        return read;
    }

    /** {@return the date of what was read, or null if there is none in it} */
    static @Nullable DateValue date(TemporalAccessor parsed) {
        LocalDate date = parsed.query(TemporalQueries.localDate());
        return date == null ? null : new DateValue(date);
    }

    /**
     * {@return a value as a time of day}
     *
     * @param pattern how a text is written, or null for ISO 8601
     * @throws dev.morphema.problem.ProblemException if it is none
     */
    public static TimeValue time(Value value, @Nullable DatePattern pattern) {
        if (value instanceof TimeValue time) {
            return time;
        }
        if (value instanceof DateTimeValue datetime) {
            return new TimeValue(datetime.local().toLocalTime());
        }
        TemporalAccessor parsed = parse(value, pattern, DateTimeFormatter.ISO_LOCAL_TIME, "a time", "14:30:00");
        TimeValue read = time(parsed);
        if (read == null) {
            throw incomplete(value, "a time");
        }
        return read;
    }

    /** {@return the time of what was read, or null if there is none in it} */
    static @Nullable TimeValue time(TemporalAccessor parsed) {
        LocalTime time = parsed.query(TemporalQueries.localTime());
        return time == null ? null : new TimeValue(time);
    }

    /**
     * {@return a value as a datetime; one without offset gets that of the zone, if there is one}
     *
     * @param pattern how a text is written, or null for ISO 8601
     * @param zone where the clock hangs that shows a time without offset, or null if that is not
     *     known
     * @throws dev.morphema.problem.ProblemException if it is none
     */
    public static DateTimeValue datetime(Value value, @Nullable DatePattern pattern, @Nullable ZoneId zone) {
        if (value instanceof DateTimeValue datetime) {
            return datetime.offset() == null ? inZone(datetime.local(), zone) : datetime;
        }
        if (value instanceof DateValue date) {
            return inZone(date.date().atStartOfDay(), zone);
        }
        TemporalAccessor parsed = parse(value, pattern, ISO_DATETIME, "a datetime", "2026-03-05T14:30:00+01:00");
        DateTimeValue read = datetime(parsed, zone);
        if (read == null) {
            throw incomplete(value, "a datetime");
        }
        return read;
    }

    /** {@return the datetime of what was read, or null if it lacks a date or a time} */
    static @Nullable DateTimeValue datetime(TemporalAccessor parsed, @Nullable ZoneId zone) {
        if (parsed instanceof LocalDateTime local) {
            return inZone(local, zone);
        }
        LocalDate date = parsed.query(TemporalQueries.localDate());
        LocalTime time = parsed.query(TemporalQueries.localTime());
        if (date == null || time == null) {
            return null;
        }
        ZoneId own = parsed.query(TemporalQueries.zone());
        return inZone(date.atTime(time), own == null ? zone : own);
    }

    /** A time in a gap moves forward by the gap; one that comes twice takes the earlier offset. */
    private static DateTimeValue inZone(LocalDateTime local, @Nullable ZoneId zone) {
        if (zone == null) {
            return new DateTimeValue(local, null);
        }
        ZonedDateTime zoned = local.atZone(zone);
        return new DateTimeValue(zoned.toLocalDateTime(), zoned.getOffset());
    }

    /**
     * {@return the same instant on the clock of another zone; a datetime without offset is taken as
     * of that zone}
     *
     * @throws dev.morphema.problem.ProblemException if there is no such year on that clock
     */
    public static DateTimeValue inZone(DateTimeValue datetime, ZoneId zone) {
        if (datetime.offset() == null) {
            return inZone(datetime.local(), zone);
        }
        try {
            ZonedDateTime moved = datetime.local().atOffset(datetime.offset()).atZoneSameInstant(zone);
            return new DateTimeValue(moved.toLocalDateTime(), moved.getOffset());
        } catch (DateTimeException e) {
            throw Faults.fault(
                    Code.OUT_OF_RANGE, "In that zone the result is outside the range of years.", datetime, null);
        }
    }

    /**
     * {@return the datetime in UTC of a number of seconds, or milliseconds, since 1970}
     *
     * @throws dev.morphema.problem.ProblemException if the value is no number, or too large
     */
    public static DateTimeValue epoch(Value value, boolean milliseconds) {
        BigDecimal number = Numbers.number(value).decimal();
        BigDecimal seconds = milliseconds ? number.divide(THOUSAND) : number;
        try {
            BigDecimal whole = seconds.setScale(0, RoundingMode.FLOOR);
            int nanos = seconds.subtract(whole).movePointRight(9).intValue();
            Instant instant = Instant.ofEpochSecond(whole.longValueExact(), nanos);
            return new DateTimeValue(LocalDateTime.ofInstant(instant, ZoneOffset.UTC), ZoneOffset.UTC);
        } catch (ArithmeticException | DateTimeException e) {
            throw Faults.fault(Code.NOT_A_DATE, "This number is too large for a point in time.", value, null);
        }
    }

    /**
     * {@return the seconds, or milliseconds, since 1970; a datetime without offset is taken as UTC}
     */
    public static NumberValue toEpoch(DateTimeValue datetime, boolean milliseconds) {
        ZoneOffset offset = datetime.offset() == null ? ZoneOffset.UTC : datetime.offset();
        Instant instant = datetime.local().toInstant(offset);
        BigDecimal seconds = BigDecimal.valueOf(instant.getEpochSecond()).add(BigDecimal.valueOf(instant.getNano(), 9));
        BigDecimal number = (milliseconds ? seconds.multiply(THOUSAND) : seconds).stripTrailingZeros();
        return NumberValue.of(number);
    }

    /**
     * {@return the text of a date, time or datetime by a pattern}
     *
     * @throws dev.morphema.problem.ProblemException if it lacks something that the pattern asks for
     */
    public static String print(Value value, DatePattern pattern) {
        TemporalAccessor temporal;
        if (value instanceof DateValue date) {
            temporal = date.date();
        } else if (value instanceof TimeValue time) {
            temporal = time.time();
        } else {
            DateTimeValue datetime = (DateTimeValue) value;
            temporal = datetime.offset() == null
                    ? datetime.local()
                    : datetime.local().atOffset(datetime.offset());
        }
        try {
            return pattern.print(temporal);
        } catch (DateTimeException e) {
            throw Faults.fault(
                    Code.NOT_CONVERTIBLE,
                    "The pattern asks for something that " + value.kind().words() + " like this does not have.",
                    value,
                    value instanceof DateTimeValue datetime && datetime.offset() == null
                            ? "this datetime has no offset; datetime(x, pattern, zone) gives it one"
                            : null);
        }
    }

    /**
     * {@return a zone}
     *
     * @throws IllegalArgumentException if there is none of that name
     */
    public static ZoneId zone(String name) {
        try {
            return ZoneId.of(name);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "There is no time zone of this name; zones are named like Europe/Oslo, UTC or +01:00.", e);
        }
    }

    private static TemporalAccessor parse(
            Value value, @Nullable DatePattern pattern, DateTimeFormatter iso, String wanted, String example) {
        // Digits such as 20260305 may have come as a number.
        boolean readable = value instanceof TextValue || value instanceof NumberValue && pattern != null;
        if (!readable) {
            throw Faults.fault(
                    Code.NOT_A_DATE,
                    "Expected " + wanted + ", found " + value.kind().words() + ".",
                    value,
                    value instanceof NumberValue
                            ? "a pattern says what the digits mean: date(20260305, 'yyyyMMdd'), datetime(1772719800, 'epoch')"
                            : null);
        }
        String trimmed = WhiteSpace.trim(value.toString());
        try {
            if (pattern != null) {
                return pattern.parse(trimmed);
            }
            TemporalAccessor parsed = iso == ISO_DATETIME ? FixedPattern.isoDateTime(trimmed) : null;
            return parsed == null ? iso.parse(trimmed) : parsed;
        } catch (DateTimeException e) {
            if (impossible(e)) {
                throw Faults.fault(
                        Code.NOT_A_DATE,
                        "This text is written like " + wanted + ", but there is no such day or time.",
                        value,
                        null);
            }
            throw Faults.fault(
                    Code.NOT_A_DATE,
                    "This text is not " + wanted
                            + (pattern == null ? " as ISO 8601 writes it." : " of the pattern " + pattern + "."),
                    value,
                    pattern == null ? "expected is a text like " + example + "; other forms need a pattern" : null);
        }
    }

    /** Whether all digits could be read, and only the day of them does not exist. */
    private static boolean impossible(DateTimeException e) {
        return e.getCause() instanceof DateTimeException;
    }

    private static ProblemException incomplete(Value value, String wanted) {
        return Faults.fault(Code.NOT_A_DATE, "The pattern does not hold all that " + wanted + " needs.", value, null);
    }
}
