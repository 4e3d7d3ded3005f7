package dev.morphema.convert;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.value.Kind;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.time.temporal.TemporalAccessor;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Patterns of fixed places: what they take they read as the formatter of Java does, and they take
 * all that is common.
 */
class FixedPatternTest {
    private static final String CHARACTERS = "/0123456789:;-T ZX\u00e9";

    private static FixedPattern pattern(String pattern) {
        return Objects.requireNonNull(FixedPattern.of(pattern));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "yyyy-MM-dd",
                "uuuuMMdd",
                "dd.MM.yyyy",
                "HH:mm",
                "HHmmss",
                "yyyy-MM-dd'T'HH:mm:ss",
                "HH:mm dd/MM/yyyy",
                "'on 'dd.MM.uuuu' at 'HH'h'mm"
            })
    void fieldsOfFixedPlacesAreTaken(String pattern) {
        assertThat(FixedPattern.of(pattern)).isNotNull();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "d.M.yyyy",
                "yy-MM-dd",
                "yyyyy-MM-dd",
                "MMM dd yyyy",
                "yyyy-MM",
                "MM-dd",
                "yyyy-dd",
                "HH",
                "mm:ss",
                "ss",
                "",
                "HH:ss",
                "yyyy-MM-dd HH",
                "yyyy-MM-dd ss",
                "yyyy-MM-dd yyyy",
                "yyyy-MM-dd EEE",
                "[yyyy]-MM-dd",
                "yyyy-MM-dd]",
                "yyyy-MM-dd'",
                "yyyy''MM-dd",
                "yyyy-MM-dd \u00e9",
                "'\u00e9'yyyy-MM-dd",
                "yyyy-MM-ddX",
                "HH:mm:ss.SSS"
            })
    void othersAreLeftToTheGeneralWay(String pattern) {
        assertThat(FixedPattern.of(pattern)).isNull();
    }

    private static @Nullable TemporalAccessor general(String pattern, String text) {
        DateTimeFormatter formatter = DateTimeFormatter.ofPattern(pattern).withResolverStyle(ResolverStyle.STRICT);
        try {
            return formatter.parseBest(text, LocalDateTime::from, LocalDate::from, LocalTime::from);
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    @ParameterizedTest
    @CsvSource({
        "uuuu-MM-dd, 2026-03-05",
        "uuuuMMdd, 20240229",
        "dd.MM.uuuu, 31.12.1999",
        "HH:mm, 23:59",
        "HH:mm:ss, 00:00:00",
        "uuuu-MM-dd HH:mm, 2026-03-05 14:30",
        "HH:mm:ss dd/MM/uuuu, 14:30:59 31/01/0001"
    })
    @DisplayName(
            "a text with any character put in its place is read as by the general way, or not at all; the text itself is read")
    void asTheGeneralWay(String pattern, String text) {
        assertThat(pattern(pattern).parse(text)).isEqualTo(general(pattern, text));
        assertThat(pattern(pattern).parse(text + "0")).isNull();
        assertThat(pattern(pattern).parse(text.substring(1))).isNull();
        for (int i = 0; i < text.length(); i++) {
            for (char c : CHARACTERS.toCharArray()) {
                String changed = text.substring(0, i) + c + text.substring(i + 1);
                assertThat(pattern(pattern).parse(changed)).as(changed).isEqualTo(general(pattern, changed));
                byte[] bytes = ("<" + changed + ">").getBytes(StandardCharsets.ISO_8859_1);
                assertThat(pattern(pattern).parse(bytes, 1, bytes.length - 1))
                        .as(changed)
                        .isEqualTo(general(pattern, changed));
                printsIso(pattern, changed);
            }
        }
        assertThat(pattern(pattern).print(Objects.requireNonNull(general(pattern, text))))
                .isEqualTo(text);
    }

    /**
     * Bytes are printed as the value that is read from them, or left alone; what is common is
     * printed.
     */
    private static void printsIso(String pattern, String text) {
        TemporalAccessor value = general(pattern, text);
        byte[] bytes = ("<" + text + ">").getBytes(StandardCharsets.ISO_8859_1);
        for (Kind kind : new Kind[] {Kind.DATE, Kind.TIME, Kind.DATETIME}) {
            byte[] into = new byte[40];
            int end = pattern(pattern).printIso(kind, bytes, 1, bytes.length - 1, into, 3);
            String expected = iso(kind, value);
            if (end >= 0) {
                assertThat(new String(Arrays.copyOfRange(into, 3, end), StandardCharsets.US_ASCII))
                        .as(text)
                        .isEqualTo(expected);
            } else {
                boolean rare = expected != null
                        && (expected.startsWith("0") && kind != Kind.TIME || expected.contains("-02-29"));
                assertThat(expected == null || rare).as(text + " as " + kind).isTrue();
            }
        }
    }

    private static @Nullable String iso(Kind kind, @Nullable TemporalAccessor value) {
        if (kind == Kind.DATE && value instanceof LocalDate date) {
            return DateTimeFormatter.ISO_LOCAL_DATE.format(date);
        }
        if (kind == Kind.TIME && value instanceof LocalTime time) {
            return DateTimeFormatter.ofPattern("HH:mm:ss").format(time);
        }
        return kind == Kind.DATETIME && value instanceof LocalDateTime local
                ? DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss").format(local)
                : null;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2026-03-05T14:30:00",
                "2026-03-05T14:30:00Z",
                "2026-03-05T14:30:00+01:00",
                "2026-03-05T14:30:59-17:59",
                "2026-12-31T23:59:59+00:00"
            })
    void isoDatetimesAreRead(String text) {
        assertThat(FixedPattern.isoDateTime(text))
                .isEqualTo(text.length() == 19 ? LocalDateTime.parse(text) : OffsetDateTime.parse(text));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2026-03-05T14:30",
                "2026-03-05T14:30:00z",
                "2026-03-05T14:30:00+0100",
                "2026-03-05T14:30:00+01",
                "2026-03-05",
                "2026-03-05T14:30:00+18:00",
                "2026-03-05T14:30:00+01:60",
                "2026-03-05T14:30:00*01:00",
                "2026-02-30T14:30:00Z",
                "2026-03-05T14:30:00+01;00",
                "2026-03-05T14:30:00+0x:00",
                "2026-03-05T14:30:00.5",
                "2026-03-05T14:30:00+01:00:00",
                "2026-03-05T14:30:00+x1:00",
                "2026-03-05T14:30:00+01:x0",
                "2026-03-05T14:30:00+01:0x",
                "2026-03-05T14:30:00\u00e9"
            })
    void otherDatetimesAreNot(String text) {
        assertThat(FixedPattern.isoDateTime(text)).isNull();
    }

    @Test
    void onlyWhatHasAllFieldsIsPrinted() {
        LocalDate day = LocalDate.of(2026, 3, 5);
        assertThat(pattern("dd.MM.yyyy").print(day)).isEqualTo("05.03.2026");
        assertThat(pattern("dd.MM.yyyy").print(day.atTime(14, 30))).isEqualTo("05.03.2026");
        assertThat(pattern("HH:mm:ss").print(day.atTime(14, 30, 9))).isEqualTo("14:30:09");
        assertThat(pattern("yyyyMMdd HHmm").print(OffsetDateTime.parse("2026-03-05T14:30:09+01:00")))
                .isEqualTo("20260305 1430");
        assertThat(pattern("dd.MM.yyyy").print(LocalTime.NOON)).isNull();
        assertThat(pattern("HH:mm").print(day)).isNull();
        assertThat(pattern("yyyyMMdd HHmm").print(day)).isNull();
        assertThat(pattern("yyyyMMdd").print(LocalDate.of(9999, 1, 1))).isEqualTo("99990101");
        assertThat(pattern("yyyyMMdd").print(LocalDate.of(0, 1, 1))).isEqualTo("00000101");
        assertThat(pattern("yyyyMMdd").print(LocalDate.of(10_000, 1, 1))).isNull();
        assertThat(pattern("yyyyMMdd").print(LocalDate.of(-1, 1, 1))).isNull();
    }

    @Test
    void onlyWhatThePatternHoldsIsPrintedFromBytes() {
        byte[] day = "05.03.2026".getBytes(StandardCharsets.US_ASCII);
        assertThat(pattern("dd.MM.yyyy").printIso(Kind.DATE, day, 0, day.length, new byte[20], 0))
                .isEqualTo(10);
        assertThat(pattern("dd.MM.yyyy").printIso(Kind.DATETIME, day, 0, day.length, new byte[20], 0))
                .isEqualTo(-1);
        assertThat(pattern("dd.MM.yyyy").printIso(Kind.TIME, day, 0, day.length, new byte[20], 0))
                .isEqualTo(-1);
        assertThat(pattern("dd.MM.yyyy").printIso(Kind.DATE, day, 1, day.length, new byte[20], 0))
                .isEqualTo(-1);
    }
}
