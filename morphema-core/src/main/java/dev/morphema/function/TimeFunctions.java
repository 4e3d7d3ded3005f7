package dev.morphema.function;

import dev.morphema.convert.Dates;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Period;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Functions of dates and times. Steps of time are written as in ISO 8601: P1M, P14D, PT6H. */
final class TimeFunctions implements FunctionTable.Family {
    private static final int SECONDS_OF_HOUR = 3600;
    private static final int SECONDS_OF_MINUTE = 60;
    private static final long SECONDS_OF_DAY = 86_400;

    @Override
    public void addTo(FunctionSet functions) {
        functions.surrounded(
                "now(): datetime",
                Stability.STABLE,
                (a, run) -> new DateTimeValue(LocalDateTime.ofInstant(run.now(), ZoneOffset.UTC), ZoneOffset.UTC));
        functions.surrounded("today(zone?: text): date", Stability.STABLE, TimeFunctions::today);
        functions.scalar("plus(time: moment, step: text): any", TimeFunctions::plus);
        functions.scalar("days(from: date, to: date): number", TimeFunctions::days);
        functions.scalar("seconds(from: moment, to: moment): number", TimeFunctions::seconds);
        functions.scalar("duration(seconds: number): text", a -> TextValue.of(clock((NumberValue) a[0])));
        functions.scalar("inZone(time: datetime, zone: text): datetime", TimeFunctions::inZone);
    }

    private static Value today(Value[] a, Function.Context run) {
        Instant now = run.now();
        String zone = a.length > 0 ? TextFunctions.text(a, 0) : "UTC";
        try {
            return new DateValue(now.atZone(Dates.zone(zone)).toLocalDate());
        } catch (IllegalArgumentException e) {
            throw outOfRange(e.getMessage(), zone);
        }
    }

    private static Value inZone(Value[] a) {
        try {
            return Dates.inZone((DateTimeValue) a[0], Dates.zone(TextFunctions.text(a, 1)));
        } catch (IllegalArgumentException e) {
            throw outOfRange(e.getMessage(), TextFunctions.text(a, 1));
        }
    }

    private static ProblemException outOfRange(@Nullable String message, String value) {
        return new ProblemException(
                Problem.error(Code.OUT_OF_RANGE, String.valueOf(message)).withValue(value));
    }

    private static Value days(Value[] a) {
        return NumberValue.of(ChronoUnit.DAYS.between(((DateValue) a[0]).date(), ((DateValue) a[1]).date()));
    }

    /**
     * A step of months and days, or of hours, minutes and seconds; the first is counted on the
     * calendar.
     */
    private static Value plus(Value[] a) {
        String step = TextFunctions.text(a, 1);
        Period period = Period.ZERO;
        Duration duration = Duration.ZERO;
        try {
            int time = step.indexOf('T');
            if (time < 0) {
                period = Period.parse(step);
            } else {
                String sign = step.startsWith("-") ? "-" : "";
                duration = Duration.parse(sign + "P" + step.substring(time));
                String date = step.substring(0, time);
                period = date.endsWith("P") ? Period.ZERO : Period.parse(date);
            }
        } catch (DateTimeParseException | ArithmeticException e) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "This is not a step of time.")
                    .withValue(step)
                    .withHelp("steps are written like P1M, P14D, PT6H or -P1DT12H"));
        }
        try {
            return plus(a[0], period, duration);
        } catch (DateTimeException | ArithmeticException e) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "The result is outside the range of years.")
                    .withValue(step));
        }
    }

    private static Value plus(Value moment, Period period, Duration duration) {
        if (moment instanceof DateValue date) {
            if (!duration.isZero()) {
                throw cannotStep("A date has no time of day, so no hours can be added to it.", duration);
            }
            return new DateValue(date.date().plus(period));
        }
        if (moment instanceof TimeValue time) {
            if (!period.isZero()) {
                throw cannotStep("A time has no date, so no days can be added to it.", period);
            }
            return new TimeValue(time.time().plus(duration));
        }
        DateTimeValue datetime = (DateTimeValue) moment;
        return new DateTimeValue(datetime.local().plus(period).plus(duration), datetime.offset());
    }

    private static ProblemException cannotStep(String why, Object step) {
        return new ProblemException(
                Problem.error(Code.OUT_OF_RANGE, why).withValue(step.toString()).withHelp("a datetime has both"));
    }

    private static Value seconds(Value[] a) {
        return NumberValue.of(point(a[1], a[0]).subtract(point(a[0], a[1])));
    }

    /** Seconds on a line of time on which both values can be put. */
    private static BigDecimal point(Value value, Value other) {
        if (value.kind() != other.kind()) {
            throw new ProblemException(Problem.error(
                    Code.KIND,
                    "Between " + value.kind().words() + " and " + other.kind().words()
                            + " seconds cannot be counted."));
        }
        if (value instanceof TimeValue time) {
            return BigDecimal.valueOf(time.time().toNanoOfDay(), 9).stripTrailingZeros();
        }
        if (value instanceof DateValue date) {
            return BigDecimal.valueOf(date.date().toEpochDay()).multiply(BigDecimal.valueOf(SECONDS_OF_DAY));
        }
        DateTimeValue datetime = (DateTimeValue) value;
        if ((datetime.offset() == null) != (((DateTimeValue) other).offset() == null)) {
            throw new ProblemException(
                    Problem.error(Code.KIND, "One of the datetimes has an offset, the other has none.")
                            .withHelp("datetime(x, pattern, zone) gives an offset"));
        }
        return Dates.toEpoch(datetime, false).decimal();
    }

    /** Hours, minutes and seconds; hours go on beyond 24. */
    private static String clock(NumberValue seconds) {
        BigDecimal abs = seconds.decimal().abs();
        long whole = NumberValue.of(abs).nearestLong();
        if (whole == Long.MAX_VALUE) {
            throw outOfRange("This number of seconds is outside the range of a duration.", seconds.toString());
        }
        BigDecimal fraction = abs.subtract(BigDecimal.valueOf(whole));
        String text = String.format(
                Locale.ROOT,
                "%02d:%02d:%02d",
                whole / SECONDS_OF_HOUR,
                whole % SECONDS_OF_HOUR / SECONDS_OF_MINUTE,
                whole % SECONDS_OF_MINUTE);
        String rest = fraction.signum() == 0
                ? ""
                : fraction.stripTrailingZeros().toPlainString().substring(1);
        return (seconds.sign() < 0 ? "-" : "") + text + rest;
    }

    /** Numbers down to a whole one, times down to a multiple of a step since midnight. */
    static Function.Body floor(List<@Nullable Value> constants) {
        return (a, run) -> {
            if (a.length == 1) {
                return ((NumberValue) ParameterKind.NUMBER.take(a[0])).rounded(0, RoundingMode.FLOOR);
            }
            long step;
            try {
                step = Duration.parse(TextFunctions.text(a, 1)).toNanos();
            } catch (DateTimeException | ArithmeticException e) {
                step = 0;
            }
            if (step <= 0 || step > SECONDS_OF_DAY * 1_000_000_000L) {
                throw new ProblemException(
                        Problem.error(Code.OUT_OF_RANGE, "A time is rounded down to a step of at most a day.")
                                .withValue(TextFunctions.text(a, 1))
                                .withHelp("steps are written like PT15M or PT6H"));
            }
            return floored(ParameterKind.MOMENT.take(a[0]), step);
        };
    }

    private static Value floored(Value moment, long step) {
        if (moment instanceof TimeValue time) {
            return new TimeValue(LocalTime.ofNanoOfDay(time.time().toNanoOfDay() / step * step));
        }
        if (moment instanceof DateTimeValue datetime) {
            long nanos = datetime.local().toLocalTime().toNanoOfDay() / step * step;
            return new DateTimeValue(
                    datetime.local().toLocalDate().atTime(LocalTime.ofNanoOfDay(nanos)), datetime.offset());
        }
        return moment;
    }
}
