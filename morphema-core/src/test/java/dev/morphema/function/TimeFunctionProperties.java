package dev.morphema.function;

import static dev.morphema.function.Calls.call;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.LongRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.NumberValue;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.Period;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;

/** Functions of dates and times give what the calendar and the clocks of Java give. */
class TimeFunctionProperties {
    private static final List<String> ZONES =
            List.of("UTC", "Europe/Oslo", "America/New_York", "Asia/Kolkata", "Australia/Lord_Howe", "+05:45");

    @Provide
    Gen<LocalDateTime> moments() {
        Gen<LocalDateTime> any = Gens.longs()
                .between(-3_000_000_000L, 9_000_000_000L)
                .map(second -> LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC));
        // Around the hours in which the clocks of Oslo are changed.
        Gen<LocalDateTime> changes = Gens.of("2026-03-29T00:00", "2026-10-25T00:00", "2024-02-29T00:00")
                .flatMap(day -> Gens.integers()
                        .between(0, 60 * 24)
                        .map(minute -> LocalDateTime.parse(day).plusMinutes(minute)));
        Gen<Integer> nanos = Gens.of(0, 0, 500_000_000, 123_000_000, 1, 999_999_999);
        return Gens.oneOf(any, changes).flatMap(moment -> nanos.map(moment::withNano));
    }

    @Provide
    Gen<String> zones() {
        return Gens.of(ZONES);
    }

    private static String iso(LocalDateTime local) {
        return DateTimeFormatter.ISO_LOCAL_DATE.format(local) + "T" + iso(local.toLocalTime());
    }

    /** With seconds, and three, six or nine digits after them if there need be. */
    private static String iso(LocalTime time) {
        return time.getNano() == 0
                ? time.format(DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT))
                : time.toString();
    }

    private static String iso(ZonedDateTime moment) {
        return iso(moment.toLocalDateTime()) + moment.getOffset();
    }

    @Property
    void theClockOfAZoneIsAsTheseZonesHaveIt(@ForAll("moments") LocalDateTime local, @ForAll("zones") String zone) {
        // In a gap it goes forward, of two that there are it is the first.
        String expected = iso(local.atZone(ZoneId.of(zone)));
        assertThat(call("datetime", iso(local), "yyyy-MM-dd'T'HH:mm:ss[.SSSSSSSSS][.SSS][.S]", zone))
                .hasToString(expected);
        assertThat(call("inZone", local, zone)).hasToString(expected);
        for (String other : ZONES) {
            ZonedDateTime moved = local.atZone(ZoneId.of(zone)).withZoneSameInstant(ZoneId.of(other));
            assertThat(call("inZone", expected, other)).hasToString(iso(moved));
        }
    }

    @Property
    void stepsAreTakenOnTheCalendar(
            @ForAll("moments") LocalDateTime local,
            @ForAll @IntRange(min = -40, max = 40) int months,
            @ForAll @IntRange(min = -800, max = 800) int days,
            @ForAll @LongRange(min = -200_000, max = 200_000) long seconds) {
        Period period = Period.ofMonths(months).plusDays(days);
        Duration duration = Duration.ofSeconds(seconds);
        assertThat(call("plus", local, period.toString())).hasToString(iso(local.plus(period)));
        assertThat(call("plus", local, duration.toString())).hasToString(iso(local.plus(duration)));
        assertThat(call("plus", local.toLocalDate(), period.toString()))
                .hasToString(local.toLocalDate().plus(period).toString());
        assertThat(call("plus", local.toLocalTime(), duration.toString()))
                .hasToString(iso(local.toLocalTime().plus(duration)));
        String both = "P" + Math.abs(months) + "M" + Math.abs(days) + "DT" + Math.abs(seconds) + "S";
        LocalDateTime after =
                local.plusMonths(Math.abs(months)).plusDays(Math.abs(days)).plusSeconds(Math.abs(seconds));
        LocalDateTime before =
                local.minusMonths(Math.abs(months)).minusDays(Math.abs(days)).minusSeconds(Math.abs(seconds));
        assertThat(call("plus", local, both)).hasToString(iso(after));
        assertThat(call("plus", local, "-" + both)).hasToString(iso(before));
    }

    @Property
    void whatIsBetweenIsWhatLeadsFromOneToTheOther(
            @ForAll("moments") LocalDateTime one, @ForAll("moments") LocalDateTime other) {
        assertThat(call("days", one, other))
                .hasToString(String.valueOf(ChronoUnit.DAYS.between(one.toLocalDate(), other.toLocalDate())));
        Duration between = Duration.between(one, other);
        BigDecimal seconds = BigDecimal.valueOf(between.getSeconds()).add(BigDecimal.valueOf(between.getNano(), 9));
        assertThat(((NumberValue) call("seconds", one, other)).decimal()).isEqualByComparingTo(seconds);
        OffsetDateTime east = one.atOffset(ZoneOffset.ofHours(5));
        assertThat(((NumberValue) call("seconds", east, other.atOffset(ZoneOffset.UTC))).decimal())
                .isEqualByComparingTo(seconds.add(BigDecimal.valueOf(5 * 3600)));
        assertThat(((NumberValue) call("seconds", one.toLocalDate(), other.toLocalDate()))
                        .decimal()
                        .longValueExact())
                .isEqualTo(86_400 * ChronoUnit.DAYS.between(one.toLocalDate(), other.toLocalDate()));
    }

    @Property
    void aDurationIsHoursMinutesAndSeconds(@ForAll @LongRange(min = -999_999_999, max = 999_999_999) long millis) {
        Duration duration = Duration.ofMillis(millis).abs();
        String text = String.format(
                Locale.ROOT, "%02d:%02d:%02d", duration.toHours(), duration.toMinutesPart(), duration.toSecondsPart());
        String fraction = duration.toMillisPart() == 0
                ? ""
                : String.format(Locale.ROOT, ".%03d", duration.toMillisPart()).replaceAll("0+$", "");
        assertThat(call("duration", BigDecimal.valueOf(millis, 3)))
                .hasToString((millis < 0 ? "-" : "") + text + fraction);
    }

    @Property
    void pointsInTimeGoToSecondsAndBack(@ForAll("moments") LocalDateTime local) {
        Instant instant = local.toInstant(ZoneOffset.UTC);
        String seconds = call("format", local, "epoch").toString();
        assertThat(new BigDecimal(seconds))
                .isEqualByComparingTo(
                        BigDecimal.valueOf(instant.getEpochSecond()).add(BigDecimal.valueOf(instant.getNano(), 9)));
        assertThat(call("datetime", seconds, "epoch")).hasToString(iso(local) + "Z");
        String millis = call("format", local.atOffset(ZoneOffset.ofHours(2)), "epoch ms")
                .toString();
        assertThat(call("datetime", millis, "epoch ms")).hasToString(iso(local.minusHours(2)) + "Z");
    }

    @Property
    void timesAreRoundedDownFromMidnightOn(
            @ForAll("moments") LocalDateTime local, @ForAll @IntRange(min = 1, max = 1440) int minutes) {
        Duration step = Duration.ofMinutes(minutes);
        long nanos = local.toLocalTime().toNanoOfDay() / step.toNanos() * step.toNanos();
        LocalTime floor = LocalTime.ofNanoOfDay(nanos);
        assertThat(call("floor", local.toLocalTime(), step.toString())).hasToString(iso(floor));
        assertThat(call("floor", local, step.toString()))
                .hasToString(iso(local.toLocalDate().atTime(floor)));
    }

    @Test
    void theDayIsThatOfAZone() {
        assertThat(call("now")).hasToString("2026-03-05T23:30:00Z");
        assertThat(call("today")).hasToString("2026-03-05");
        assertThat(call("today", "Europe/Oslo")).hasToString("2026-03-06");
        assertThatThrownBy(() -> call("today", "Atlantis"))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("no time zone of this name");
    }

    @Test
    void whatCannotBeIsToldAsSuch() {
        LocalDate day = LocalDate.of(2026, 3, 5);
        assertThatThrownBy(() -> call("plus", day, "PT1H")).hasMessageContaining("A date has no time of day");
        assertThatThrownBy(() -> call("plus", LocalTime.NOON, "P1D")).hasMessageContaining("A time has no date");
        assertThatThrownBy(() -> call("plus", day, "1 day")).hasMessageContaining("This is not a step of time");
        assertThatThrownBy(() -> call("plus", LocalDate.MAX, "P1D")).hasMessageContaining("outside the range of years");
        assertThatThrownBy(() -> call("inZone", OffsetDateTime.MAX, "UTC"))
                .hasMessageContaining("outside the range of years");
        assertThatThrownBy(() -> call("duration", BigDecimal.TEN.pow(30))).hasMessageContaining("range of a duration");
        assertThatThrownBy(() -> call("floor", LocalTime.NOON, "P2D")).hasMessageContaining("at most a day");
        assertThatThrownBy(() -> call("seconds", day, LocalTime.NOON)).hasMessageContaining("cannot be counted");
        assertThatThrownBy(() -> call("seconds", LocalDateTime.MIN, OffsetDateTime.MIN))
                .hasMessageContaining("One of the datetimes has an offset");
        assertThatThrownBy(() -> call("format", day, "HH")).hasMessageContaining("does not have");
    }
}
