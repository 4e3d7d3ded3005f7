package dev.morphema.convert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Converter;
import dev.morphema.value.Kind;
import dev.morphema.value.ListValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Declared types: what stands in their parentheses, what they make of texts, and what they refuse.
 */
class TypesTest {
    private static Converter type(String name, String arguments) {
        return TypeConverters.converter(name, arguments.isEmpty() ? List.of() : Arrays.asList(arguments.split("\\|")));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '"',
            value = {
                "text; x; The type text takes nothing in parentheses.",
                "integer; x; The type integer takes nothing in parentheses.",
                "number; ,|.|x; The type number takes at most 2 in parentheses.",
                "date; yyyy|x; The type date takes at most 1 in parentheses.",
                "time; HH:mm|x; The type time takes at most 1 in parentheses.",
                "datetime; iso|UTC|x; The type datetime takes at most 2 in parentheses.",
                "boolean; J; boolean takes two texts, that for true and that for false.",
                "boolean; J|J; The texts for true and for false are the same.",
                "number; ,|,; The decimal mark and the grouping mark are the same.",
                "number; 1; A mark in a number is one character and no digit, as in number(',', '.').",
                "number; ab; A mark in a number is one character and no digit, as in number(',', '.').",
                "numbr; \"\"; There is no type numbr."
            })
    void whatDoesNotFitIsRefused(String name, String arguments, String message) {
        assertThatThrownBy(() -> type(name, arguments))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage(message);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '"',
            value = {
                "number; \"\"; 1.50; 1.50",
                "number; \"\"; \" -1.5E3 \"; -1500",
                "number; ,; 1,50; 1.50",
                "number; ,|.; 1.234.567,50; 1234567.50",
                "number; ·; 1·50; 1.50",
                "integer; \"\"; 12.0; 12",
                "boolean; J|N; J; true",
                "boolean; J|N; N; false",
                "boolean; \"\"; true; true",
                "date; dd.MM.yyyy; 05.03.2026; 2026-03-05",
                "date; iso; 2026-03-05; 2026-03-05",
                "time; HHmm; 1430; 14:30:00",
                "datetime; epoch; 0; 1970-01-01T00:00:00Z",
                "datetime; epoch ms; 1500; 1970-01-01T00:00:01.500Z",
                "datetime; epoch|Europe/Oslo; 0; 1970-01-01T01:00:00+01:00",
                "datetime; dd.MM.yyyy HH:mm|Europe/Oslo; 05.07.2026 14:30; 2026-07-05T14:30:00+02:00"
            })
    void textsAreRead(String name, String arguments, String text, String value) {
        assertThat(type(name, arguments).convert(TextValue.of(text))).hasToString(value);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '"',
            value = {
                "number; ,|.; 1.23,5",
                "number; ,|.; 1.2345,5",
                "number; ,|.; .123,5",
                "number; ,|.; 1234.567",
                "number; ,; 1.5",
                "number; \"\"; 1,5",
                "number; \"\"; 1E999999999",
                "integer; \"\"; 12.5",
                "boolean; J|N; j",
                "date; dd.MM.yyyy; 31.02.2026",
                "datetime; epoch; x"
            })
    void otherTextsAreRefusedWithTheirValue(String name, String arguments, String text) {
        assertThatThrownBy(() -> type(name, arguments).convert(TextValue.of(text)))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().value()).isEqualTo(text));
    }

    @Test
    void whatIsNoScalarIsNotShown() {
        Value list = ListValue.of(List.of(BooleanValue.TRUE));
        assertThat(Faults.fault(Code.KIND, "x", list, null).problem().value()).isNull();
        assertThat(Faults.fault(Code.KIND, "x", BooleanValue.TRUE, null)
                        .problem()
                        .value())
                .isEqualTo("true");
    }

    @Test
    void aTypeGivesItsKind() {
        assertThat(TypeConverters.kind("integer")).isEqualTo(Kind.NUMBER);
        assertThat(TypeConverters.kind("datetime")).isEqualTo(Kind.DATETIME);
        assertThat(TypeConverters.NAMES).allMatch(name -> TypeConverters.kind(name) != null);
    }
}
