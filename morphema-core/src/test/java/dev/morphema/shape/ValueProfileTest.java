package dev.morphema.shape;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What samples show of their values: the types that fit, and what comes again. */
class ValueProfileTest {
    static Stream<Arguments> types() {
        return Stream.of(
                Arguments.of("number", List.of("1", "2.50", "-3")),
                Arguments.of("number(',')", List.of("1", "2,50")),
                Arguments.of("number(',', '.')", List.of("1.234,5", "12,5")),
                Arguments.of("number('.', ',')", List.of("1,234.5", "12.5")),
                Arguments.of("date", List.of("2026-03-05", "2026-12-31")),
                Arguments.of("date('dd.MM.yyyy')", List.of("05.03.2026", "31.12.2026")),
                Arguments.of("date('MM/dd/yyyy')", List.of("03/05/2026", "12/31/2026")),
                Arguments.of("date('dd/MM/yyyy')", List.of("05/03/2026", "31/12/2026")),
                Arguments.of("date('yyyyMMdd')", List.of("20260305", "20261231")),
                Arguments.of("number", List.of("20260305", "99991231")),
                Arguments.of("datetime", List.of("2026-03-05T14:30:00Z")),
                Arguments.of("datetime('dd.MM.yyyy HH:mm')", List.of("05.03.2026 14:30")),
                Arguments.of("time('HH:mm')", List.of("14:30", "05:15")),
                Arguments.of("boolean('Y', 'N')", List.of("Y", "N", "Y")),
                Arguments.of("boolean", List.of("true", "false")),
                Arguments.of("number", List.of("1", "0", "1")));
    }

    private static ValueProfile of(List<String> texts) {
        ValueProfile profile = new ValueProfile();
        texts.forEach(text -> profile.learn(TextValue.of(text)));
        return profile;
    }

    @ParameterizedTest(name = "{0}: {1}")
    @MethodSource("types")
    @DisplayName("the type that a source can declare")
    void fits(String type, List<String> texts) {
        assertThat(of(texts).types()).first().isEqualTo(type);
    }

    @Test
    @DisplayName("codes are no numbers, words of no type, and what is mixed is text")
    void texts() {
        for (List<String> texts : List.of(
                List.of("080390", "110100"),
                List.of("Havørn", "12"),
                List.of("05.03.2026", "soon"),
                List.of("a rather long text that nobody would take for a date"),
                List.of("", " "))) {
            assertThat(of(texts).types()).isEmpty();
        }
    }

    @Test
    @DisplayName("codes that come again are counted, up to some")
    void codes() {
        ValueProfile codes = of(List.of("OK", "OK", "CANCELLED", "OK"));
        assertThat(codes.codes()).hasValue(Map.of("OK", 3L, "CANCELLED", 1L));
        assertThat(of(List.of("OK", "OK")).constant()).hasValue("OK");
        List<String> many =
                IntStream.range(0, 1_000).mapToObj(i -> "value " + i % 500).toList();
        assertThat(of(many).codes()).isEmpty();
        assertThat(of(many).examples(2)).containsExactly("value 0", "value 1");
    }

    @Test
    @DisplayName("numbers have a range, of texts that read as numbers too")
    void range() {
        ValueProfile numbers = new ValueProfile();
        numbers.learn(NumberValue.of(7));
        numbers.learn(TextValue.of("-2.5"));
        numbers.learn(TextValue.of("none"));
        assertThat(numbers.least().orElseThrow()).hasToString("-2.5");
        assertThat(numbers.most().orElseThrow()).hasToString("7");
        assertThat(numbers.longest()).isEqualTo(4);
    }

    private static Value record(Object... namesAndValues) {
        RecordBuilder record = RecordValue.builder(Layout.EMPTY, null);
        for (int i = 0; i < namesAndValues.length; i += 2) {
            record.add(FieldName.of((String) namesAndValues[i]), (Value) namesAndValues[i + 1]);
        }
        return record.build();
    }

    @Test
    @DisplayName("it is known how often there is a field, and how many of it")
    void occurrence() {
        Value line = record("kg", NumberValue.of(1));
        LearnedShape shape = LearnedShape.detailed();
        shape.learn(record("line", Many.of(List.of(line, line, line))));
        shape.learn(record("line", line, "note", TextValue.of("x")));
        shape.learn(record("list", ListValue.of(List.of())));
        LearnedShape lines = Objects.requireNonNull(shape.field(FieldName.of("line")));
        assertThat(shape.values()).isEqualTo(3);
        assertThat(lines.present()).isEqualTo(2);
        assertThat(lines.least()).isEqualTo(1);
        assertThat(lines.most()).isEqualTo(3);
        assertThat(lines.values()).isEqualTo(4);
        assertThat(Objects.requireNonNull(shape.field(FieldName.of("list"))).isList())
                .isTrue();
    }
}
