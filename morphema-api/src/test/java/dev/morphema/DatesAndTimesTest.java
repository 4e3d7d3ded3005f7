package dev.morphema;

import static dev.morphema.Language.failure;
import static dev.morphema.Language.value;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.util.Objects;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Dates and times are read and written by patterns, and counted with; what cannot be is told in
 * plain words.
 */
class DatesAndTimesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "date('2026-03-05'), 'DDD'; 064",
                "date('2026-03-05'), 'D'; 64",
                "date('2026-03-05'), 'EEE, d MMM yyyy'; Thu, 5 Mar 2026",
                "date('2026-03-05'), 'EEEE d MMMM yy'; Thursday 5 March 26",
                "date('2026-03-05'), 'e Q M L'; 4 1 3 3",
                "date('2026-03-05'), \"YYYY-'W'ww-e\"; 2026-W10-4",
                "date('2027-01-01'), \"YYYY-'W'ww\"; 2026-W53",
                "date('2026-03-05'), \"d 'o''clock' ''\"; 5 o'clock '",
                "date('2026-03-05'), 'iso'; 2026-03-05",
                "time('00:05:09'), 'hh:mm a'; 12:05 AM",
                "time('12:05:09'), 'h:mm a'; 12:05 PM",
                "time('00:05:09'), 'kk:mm'; 24:05",
                "time('12:05:09'), 'K:mm'; 0:05",
                "time('12:05:09.123456'), 'HH:mm:ss.SSS'; 12:05:09.123",
                "datetime('2026-03-05T14:10:00+01:00'), 'X XX XXX'; +01 +0100 +01:00",
                "datetime('2026-03-05T14:10:00+05:30'), 'x xx xxx'; +0530 +0530 +05:30",
                "datetime('2026-03-05T14:10:00Z'), 'X XX XXX x xx xxx Z'; Z Z Z +00 +0000 +00:00 +0000",
                "datetime('2026-03-05T14:10:00+05:30'), 'Z O VV'; +0530 GMT+5:30 +05:30",
                "datetime('2026-03-05T14:10:00.25Z'), 'epoch'; 1772719800.25",
                "datetime('2026-03-05T14:10:00.25Z'), 'epoch ms'; 1772719800250",
                "datetime('2026-03-05T14:10:00'), 'epoch'; 1772719800"
            })
    @DisplayName("a pattern says how a date or time is written")
    void areWritten(String arguments, String expected) {
        assertThat(value("format(" + arguments + ")")).isEqualTo("\"" + expected + "\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "date('064/2026', 'DDD/yyyy'); 2026-03-05",
                "date('05.03.26', 'dd.MM.yy'); 2026-03-05",
                "date('5 March 2026', 'd MMMM yyyy'); 2026-03-05",
                "date('2026-W10-4', \"YYYY-'W'ww-e\"); 2026-03-05",
                "date('2026-W10', \"YYYY-'W'ww\"); 2026-03-02",
                "date('2026-03-05 10:00', 'yyyy-MM-dd HH:mm'); 2026-03-05",
                "date('2026-03-05', 'yyyy-MM-dd[ HH:mm]'); 2026-03-05",
                "date(20260305, 'yyyyMMdd'); 2026-03-05",
                "date(date('2026-03-05')); 2026-03-05",
                "date(datetime('2026-03-05T23:30:00-05:00')); 2026-03-05",
                "time(datetime('2026-03-05T23:30:00-05:00')); 23:30:00",
                "time(time('10:00:00')); 10:00:00",
                "time(1430, 'HHmm'); 14:30:00",
                "time('24:00', 'kk:mm'); 00:00:00",
                "time('7', 'H'); 07:00:00",
                "time('12:30 AM', 'h:mm a'); 00:30:00",
                "time('0:30 PM', 'K:mm a'); 12:30:00",
                "datetime(date('2026-03-05')); 2026-03-05T00:00:00",
                "datetime(date('2026-03-05'), 'iso', 'Europe/Oslo'); 2026-03-05T00:00:00+01:00",
                "datetime('2026-03-05T10:00:00'); 2026-03-05T10:00:00",
                "datetime('2026-03-05T10:00:00', 'iso', 'Europe/Oslo'); 2026-03-05T10:00:00+01:00",
                "datetime('2026-03-05 10:00 Europe/Oslo', 'yyyy-MM-dd HH:mm VV'); 2026-03-05T10:00:00+01:00",
                "datetime('2026-03-05 10:00 +01:00', 'yyyy-MM-dd HH:mm VV'); 2026-03-05T10:00:00+01:00",
                "datetime('2026-03-05 10:00 +0100', 'yyyy-MM-dd HH:mm Z'); 2026-03-05T10:00:00+01:00",
                "datetime('2026-03-05 10:00 GMT+1', 'yyyy-MM-dd HH:mm O'); 2026-03-05T10:00:00+01:00",
                "datetime('2026-10-25 02:30', 'yyyy-MM-dd HH:mm', 'Europe/Oslo'); 2026-10-25T02:30:00+02:00",
                "datetime('1772719800', 'epoch'); 2026-03-05T14:10:00Z",
                "datetime(1772719800.5, 'epoch'); 2026-03-05T14:10:00.500Z",
                "datetime(1772719800123, 'epoch ms'); 2026-03-05T14:10:00.123Z"
            })
    @DisplayName("a pattern says how a date or time is read")
    void areRead(String expression, String expected) {
        assertThat(value(expression)).isEqualTo("\"" + expected + "\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "plus(date('2026-01-31'), 'P1M'); `\"2026-02-28\"`",
                "plus(date('2028-02-29'), '-P1Y'); `\"2027-02-28\"`",
                "plus(time('23:00:00'), 'PT2H'); `\"01:00:00\"`",
                "plus(datetime('2026-01-31T23:00:00Z'), 'P1MT2H'); `\"2026-03-01T01:00:00Z\"`",
                "plus(datetime('2026-03-05T14:30:00'), '-P1DT12H'); `\"2026-03-04T02:30:00\"`",
                "days(date('2026-01-01'), '2026-12-31'); 364",
                "days(datetime('2026-01-01T22:00:00Z'), '2026-01-02'); 1",
                "days('2026-01-02', '2026-01-01'); -1",
                "seconds(date('2026-01-01'), date('2026-01-02')); 86400",
                "seconds(datetime('2026-01-01T00:00:00Z'), datetime('2026-01-01T00:00:00+01:00')); -3600",
                "seconds(datetime('2026-01-01T00:00:00'), datetime('2026-01-01T00:01:00.5')); 60.5",
                "duration(0); `\"00:00:00\"`",
                "duration(-5); `\"-00:00:05\"`",
                "duration(90061.5); `\"25:01:01.5\"`",
                "inZone(datetime('2026-01-01T00:00:00Z'), '+05:30'); `\"2026-01-01T05:30:00+05:30\"`",
                "inZone(datetime('2026-01-01T00:00:00'), 'Europe/Oslo'); `\"2026-01-01T00:00:00+01:00\"`",
                "floor(datetime('2026-03-05T14:37:12Z'), 'PT15M'); `\"2026-03-05T14:30:00Z\"`",
                "floor(datetime('2026-03-05T14:37:12Z'), 'P1D'); `\"2026-03-05T00:00:00Z\"`",
                "floor(time('14:37:12'), 'PT1H'); `\"14:00:00\"`",
                "floor(date('2026-03-05'), 'PT1H'); `\"2026-03-05\"`",
                "datetime('2026-03-05T10:00:00Z') == datetime('2026-03-05T11:00:00+01:00'); true",
                "min([date('2026-03-05'), date('2026-03-04')]); `\"2026-03-04\"`",
                "today('Pacific/Kiritimati') >= today('Pacific/Honolulu'); true"
            })
    @DisplayName("steps are added by the calendar, and differences counted")
    void areCountedWith(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "date('nonsense') | This text is not a date as ISO 8601 writes it. | expected is a text like 2026-03-05",
                "time('noon') | This text is not a time as ISO 8601 writes it. | expected is a text like",
                "date('5.3.2026', 'dd.MM.yyyy') | This text is not a date of the pattern dd.MM.yyyy. |",
                "date('31.02.2026', 'dd.MM.yyyy') | This text is written like a date, but there is no such day or time. |",
                "time('24:00', 'HH:mm') | This text is written like a time, but there is no such day or time. |",
                "date('2026-03', 'yyyy-MM') | The pattern does not hold all that a date needs. |",
                "datetime('2026-03-05', 'yyyy-MM-dd') | The pattern does not hold all that a datetime needs. |",
                "date(time('10:00:00')) | Expected a date, found a time. |",
                "time(date('2026-03-05')) | Expected a time, found a date. |",
                "datetime(time('10:00:00')) | Expected a datetime, found a time. |",
                "date(5) | Expected a date, found a number. | a pattern says what the digits mean",
                "date(true) | Expected a date, found a boolean. |",
                "datetime(99999999999999999999, 'epoch') | This number is too large for a point in time. |",
                "datetime('12x', 'epoch') | This text is not a number. | numbers are written like -12.50",
                "format(date('2026-03-05'), 'HH') | The pattern asks for something that a date like this does not have. |",
                "format(time('12:00:00'), 'dd') | The pattern asks for something that a time like this does not have. |",
                "format(datetime('2026-03-05T14:10:00'), 'XXX') | The pattern asks for something that a datetime like this does not have. | this datetime has no offset; datetime(x, pattern, zone) gives it one",
                "format(5, 'dd') | Expected a date, time or datetime, found a number. | date(x), time(x) and datetime(x) make one of a text",
                "plus(date('2026-01-31'), 'PT5H') | A date has no time of day, so no hours can be added to it. | a datetime has both",
                "plus(time('23:00:00'), 'P1D') | A time has no date, so no days can be added to it. | a datetime has both",
                "plus(date('2026-01-31'), '1 month') | This is not a step of time. | steps are written like P1M",
                "plus(date('2026-01-31'), 'P999999999999M') | This is not a step of time. | steps are written like P1M",
                "plus(date('2026-01-31'), 'P999999999Y') | The result is outside the range of years. |",
                "days('2026-01-01', '2026-13-31') | This text is written like a date, but there is no such day or time. |",
                "seconds(date('2026-01-01'), time('10:00:00')) | Between a time and a date seconds cannot be counted. |",
                "seconds(datetime('2026-01-01T00:00:00Z'), datetime('2026-01-01T00:00:00')) | One of the datetimes has an offset, the other has none. | datetime(x, pattern, zone) gives an offset",
                "datetime('2026-01-01T00:00:00Z') < datetime('2026-01-01T00:00:00') | A datetime with offset cannot be compared with one without. | datetime(x, pattern, zone) gives an offset",
                "inZone(datetime('2026-01-01T00:00:00Z'), 'Mars/Base') | There is no time zone of this name; zones are named like Europe/Oslo, UTC or +01:00. |",
                "today('Mars/Base') | There is no time zone of this name; zones are named like Europe/Oslo, UTC or +01:00. |",
                "floor(datetime('2026-03-05T14:37:12Z'), 'P2D') | A time is rounded down to a step of at most a day. | steps are written like PT15M",
                "floor(datetime('2026-03-05T14:37:12Z'), 'soon') | A time is rounded down to a step of at most a day. | steps are written like PT15M",
                "date('2026-03-05') < datetime('2026-03-06T00:00:00') | Values of unlike kinds cannot be compared: a date and a datetime. |",
                "date('2026-03-05') == '2026-03-05' | Values of unlike kinds cannot be compared: a date and a text. | boolean(x), date(x), time(x) and datetime(x) make of a text what is meant"
            })
    @DisplayName("what is no date, or cannot be counted, is told with a way out")
    void faults(String expression, String message, String help) {
        Problem problem = failure(expression);
        assertThat(problem.message()).isEqualTo(message);
        assertThat(Objects.requireNonNullElse(problem.help(), ""))
                .startsWith(Objects.requireNonNullElse(help, ""))
                .matches(told -> told.isEmpty() == (help == null));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "d ''open | A quote in the date pattern is not closed.",
                "d [x | A [ in the date pattern is not closed.",
                "d ] | A ] in the date pattern has no matching [.",
                "d f | The letter f has no meaning in a date pattern; text stands in quotes inside the pattern.",
                "ddd | The date pattern has ddd where dd is the most that has a meaning.",
                "DDDD | The date pattern has DDDD where DDD is the most that has a meaning."
            })
    @DisplayName("a pattern that has no meaning is told when the mapping is checked")
    void patternsAreChecked(String pattern, String message) {
        assertThat(Language.check("target o: json { v = format(today(), '" + pattern + "') }"))
                .extracting(Problem::message)
                .containsExactly(message);
    }

    @Test
    @DisplayName("digits of JSON that are a date are read by a pattern, as a text and as a number")
    void numbersThatAreDates() {
        String mapping = "source d: json { day: date('yyyyMMdd')  days: date('yyyyMMdd') }\n"
                + "target o: json(indent = 0) { day = d.day  week = plus(d.day, 'P7D')  days = [d.days] }";
        assertThat(Language.run(mapping, Inputs.text("d", "{\"day\":20260305,\"days\":[\"20260306\",20260307]}")))
                .isEqualTo(
                        "{\"day\":\"2026-03-05\",\"week\":\"2026-03-12\",\"days\":[\"2026-03-06\",\"2026-03-07\"]}\n");
    }
}
