package dev.morphema.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import dev.morphema.convert.TypeConverters;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.value.TextValue;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a form takes surely, the conversion takes as well. */
class DateFormProperties {
    private static final List<String> PATTERNS = List.of(
            "yyyy-MM-dd",
            "dd.MM.yyyy",
            "d.M.yyyy",
            "MM/dd/yyyy",
            "dd.MM.yy",
            "yyyyMMdd",
            "dd.MM.yyyy HH:mm",
            "d/M/yyyy HH:mm:ss");

    @Property
    void takesNothingElse(
            @ForAll @IntRange(max = 7) int pattern,
            @ForAll @IntRange(max = 10_100) int year,
            @ForAll @IntRange(max = 14) int month,
            @ForAll @IntRange(max = 33) int day,
            @ForAll @IntRange(max = 26) int hour,
            @ForAll @IntRange(max = 62) int minute) {
        String written = PATTERNS.get(pattern);
        String text = written.replace("yyyy", String.format("%04d", year))
                .replace("yy", String.format("%02d", year % 100))
                .replace("MM", String.format("%02d", month))
                .replace("M", String.valueOf(month))
                .replace("dd", String.format("%02d", day))
                .replace("d", String.valueOf(day))
                .replace("HH", String.format("%02d", hour))
                .replace("mm", String.format("%02d", minute))
                .replace("ss", "59");
        if (DateForm.of(written).surelyTakes(text)) {
            String type = written.contains("H") ? "datetime" : "date";
            assertThatCode(() ->
                            TypeConverters.converter(type, List.of(written)).convert(TextValue.of(text)))
                    .as(text)
                    .doesNotThrowAnyException();
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2026-02-28T23:59:59",
                "2028-02-29T00:00:00Z",
                "2026-03-05T14:30:00.5",
                "2026-03-05T14:30:00.123456789Z"
            })
    void takesPointsInTime(String text) {
        assertThat(DateForm.isoDatetime().surelyTakes(text)).isTrue();
        assertThatCode(() -> TypeConverters.converter("datetime", List.of()).convert(TextValue.of(text)))
                .doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2026-02-29T23:59:59",
                "2026-03-05T24:00:00",
                "2026-03-05T14:30:00.",
                "2026-03-05T14:30:00ZZ",
                "2026-03-05",
                ""
            })
    void leavesOthers(String text) {
        assertThat(DateForm.isoDatetime().surelyTakes(text)).isFalse();
    }
}
