package dev.morphema;

import static dev.morphema.Language.failure;
import static dev.morphema.Language.value;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What values are, and how they calculate and compare. */
class ValuesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "0.1 + 0.2; 0.3",
                "1.50 + 1; 2.50",
                "1.5 * 1.50; 2.250",
                "10 / 4; 2.5",
                "1 / 3; 0.3333333333333333333333333333333333",
                "100 / 10; 10",
                "7 % 4; 3",
                "-7 % 4; -3",
                "2 + 3 * 4; 14",
                "(2 + 3) * 4; 20",
                "-2 - -3; 1",
                "\" 12.5 \" + 1; 13.5",
                "round(2.5, 0); 3",
                "round(-2.5, 0); -3",
                "round(-0.004, 2); 0.00",
                "round(1.005, 2); 1.01",
                "round(12, 2); 12.00",
                "round(2.5, 0, \"half even\"); 2",
                "123456789012345678901234567890 + 1; 123456789012345678901234567891"
            })
    @DisplayName("numbers are exact decimals")
    void numbersAreExact(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "absent == absent; true",
                "null == absent; false",
                "null == null; true",
                "\"\" == absent; false",
                "1 == 1.0; true",
                "\"1.0\" == 1; true",
                "\"1.0\" == \"1\"; false",
                "\"a\" != \"b\"; true",
                "absent < 1; false",
                "absent >= 1; false",
                "null < 1; false",
                "\"10\" < \"9\"; true",
                "\"10\" < 9; false",
                "not (1 == 2); true",
                "1 in [1, 2]; true",
                "\"1\" in [1, 2]; true",
                "3 not in [1, 2]; true",
                "true and absent == 1; false",
                "[1, 2] == [1.0, 2]; true",
                "({ a = 1 }) == ({ a = 1.0 }); true"
            })
    @DisplayName("== is total, the order signs are false for nothing")
    void comparisons(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "absent + 1; absent",
                "null + 1; null",
                "absent + null; absent",
                "upper(absent); absent",
                "upper(null); null",
                "absent ?? 5; 5",
                "null ?? 5; 5",
                "[] ?? 5; 5",
                "\"\" ?? 5; \"\"",
                "count([]); 0",
                "sum([]); 0",
                "sum([1, null, 2]); 3",
                "avg([]); absent",
                "join([], \",\"); absent",
                "min([3, 1, 2]); 1",
                "first([null, 4]); 4",
                "blank(absent); true",
                "blank(\" \"); true",
                "blank(0); false",
                "exists(null); false",
                "exists(\"\"); true",
                "filled(\" \"); absent",
                "if absent then 1; absent",
                "\"a{absent}b{null}c\"; \"abc\""
            })
    @DisplayName("absent, null and blank are kept apart")
    void nothingIsKeptApart(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "\"{{x}} {1 + 1}\"; \"{x} 2\"",
                "\"tab\\tend\"; \"tab\\tend\"",
                "\"\\u{20AC}\"; \"€\"",
                "'it''s {raw}'; \"it's {raw}\"",
                "\"{if true then \"in {\"deep\"}\" else \"x\"}\"; \"in deep\"",
                "length('a€😀'); 3",
                "substring('a€😀b', 3, 1); \"😀\"",
                "split('a||b', '|'); [\"a\",\"\",\"b\"]",
                "join(split(' a , b ', ','), '+'); \" a + b \"",
                "[trim(t) for t in split(' a , b ', ',')]; [\"a\",\"b\"]",
                "replace('a.b', '.', '-'); \"a-b\"",
                "upper('straße'); \"STRASSE\"",
                "padLeft(7, 3, '0'); \"007\"",
                "concat('a', absent); absent",
                "before('a-b', '-'); \"a\"",
                "after('a-b', '-'); \"b\""
            })
    @DisplayName("texts: templates, raw texts, functions by code point")
    void texts(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "datetime('05.03.2026 14:30', 'dd.MM.yyyy HH:mm', 'Europe/Oslo'); \"2026-03-05T14:30:00+01:00\"",
                // The gap in spring: 02:30 does not exist and moves forward by an hour.
                "datetime('29.03.2026 02:30', 'dd.MM.yyyy HH:mm', 'Europe/Oslo'); \"2026-03-29T03:30:00+02:00\"",
                // The hour that comes twice in autumn takes the earlier offset.
                "datetime('25.10.2026 02:30', 'dd.MM.yyyy HH:mm', 'Europe/Oslo'); \"2026-10-25T02:30:00+02:00\"",
                "date('2026-03-05'); \"2026-03-05\"",
                "format(date('2026-03-05'), 'EEE d MMM yyyy'); \"Thu 5 Mar 2026\"",
                "format(date('2027-01-01'), \"YYYY-'W'ww-e\"); \"2026-W53-5\"",
                "date('5 September 26', 'd MMMM yy'); \"2026-09-05\"",
                "datetime('1772719800', 'epoch'); \"2026-03-05T14:10:00Z\"",
                "datetime('1772719800250', 'epoch ms'); \"2026-03-05T14:10:00.250Z\"",
                "inZone(datetime('2026-03-05T14:10:00Z'), 'Europe/Oslo'); \"2026-03-05T15:10:00+01:00\"",
                "datetime('2026-03-05T14:10:00Z') == datetime('2026-03-05T15:10:00+01:00'); true",
                "days('2026-02-27', '2026-03-02'); 3",
                "format(1234567.891, '#,##0.00'); \"1,234,567.89\"",
                "format(1234.5, '#,##0.00', ','); \"1.234,50\"",
                "format(-0.001, '0.00'); \"0.00\"",
                "format(7, '000'); \"007\"",
                "format(0.5, '0%'); \"50%\"",
                "number('1.234,50', ',', '.'); 1234.50",
                "boolean('Y', 'Y', 'N'); true"
            })
    @DisplayName("dates, times and number formats do not depend on the machine")
    void datesAndFormats(String expression, String expected) {
        assertThat(value(expression)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "1 / 0; DIVISION_BY_ZERO",
                "number('1,5'); NOT_A_NUMBER",
                "number('1.234,5', ',', ' '); NOT_A_NUMBER",
                "integer(1.5); NOT_A_NUMBER",
                "date('31.02.2026', 'dd.MM.yyyy'); NOT_A_DATE",
                "date('5.3.2026'); NOT_A_DATE",
                "boolean('J', 'Y', 'N'); NOT_A_BOOLEAN",
                "fail('no'); FAILED",
                "substring('abc', 0); ARGUMENTS",
                "first(split('a', '')); ARGUMENTS",
                "sum(split('1|x', '|')); NOT_A_NUMBER"
            })
    @DisplayName("wrong values are errors at the rule")
    void wrongValues(String expression, Code expected) {
        assertThat(failure(expression).code()).isEqualTo(expected);
        assertThat(failure(expression).rule()).isNotNull();
    }

    @Test
    @DisplayName("lazy parts never raise")
    void lazyPartsNeverRaise() {
        assertThat(value("if true then 1 else fail('x')")).isEqualTo("1");
        assertThat(value("5 ?? fail('x')")).isEqualTo("5");
        assertThat(value("false and fail('x')")).isEqualTo("false");
        assertThat(value("true or fail('x')")).isEqualTo("true");
        assertThat(Language.run("target o: json(indent = 0) { let x = fail('x')  a = 1 }", Inputs.NONE))
                .isEqualTo("{\"a\":1}\n");
        assertThat(Language.run(
                        "define either(a, b) = a ?? b\ntarget o: json(indent = 0) { a = either(1, fail('x')) }",
                        Inputs.NONE))
                .isEqualTo("{\"a\":1}\n");
    }

    @Test
    @DisplayName("numbers of JSON keep their digits and never get an exponent")
    void jsonNumbers() {
        assertThat(value("d.n", "{\"n\": 1.50}")).isEqualTo("1.50");
        assertThat(value("d.n", "{\"n\": 1e3}")).isEqualTo("1000");
        assertThat(value("d.n", "{\"n\": 12345678901234567890.123}")).isEqualTo("12345678901234567890.123");
        assertThat(failure("source d: json\ntarget o: json { v = d.n }", Inputs.text("d", "{\"n\": 1e999999999}"))
                        .code())
                .isEqualTo(Code.LIMIT);
    }
}
