package dev.morphema.function;

import static dev.morphema.function.Calls.call;
import static dev.morphema.function.Calls.over;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import java.math.BigDecimal;
import java.util.List;
import java.util.function.Supplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Functions where their arguments are just allowed, and just not. */
class FunctionEdgesTest {
    private static void refused(Supplier<?> call, Code code) {
        assertThatThrownBy(call::get)
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().code()).isEqualTo(code));
    }

    @Test
    void whatIsLargestIsAllowed() {
        assertThat(call("padLeft", "x", 1_000_000).toString()).hasSize(1_000_000);
        refused(() -> call("padLeft", "x", 1_000_001), Code.OUT_OF_RANGE);
        assertThat(call("round", "1.25", 1_000)).hasToString("1.25" + "0".repeat(998));
        refused(() -> call("round", "1.25", 1_001), Code.OUT_OF_RANGE);
        refused(() -> call("round", "1.25", -1), Code.OUT_OF_RANGE);
        String deep = "(".repeat(200) + "a" + ")".repeat(200);
        assertThat(call("matches", "a", deep)).hasToString("true");
        refused(() -> call("matches", "a", "(" + deep + ")"), Code.OUT_OF_RANGE);
    }

    @Test
    void zeroHasNoNegativePowers() {
        assertThat(call("power", 2, -2)).hasToString("0.25");
        assertThat(call("power", 0, 0)).hasToString("1");
        refused(() -> call("power", 0, -1), Code.DIVISION_BY_ZERO);
        refused(() -> call("power", "1.000000001", 999), Code.OUT_OF_RANGE);
    }

    @Test
    void ofEqualNumbersTheFirstIsTheLeastAndTheLargest() {
        for (String name : List.of("min", "max")) {
            assertThat(over(name, List.of(new BigDecimal("1.50"), new BigDecimal("1.5"))))
                    .hasToString("1.50");
            assertThat(over(name, List.of(new BigDecimal("1.5"), new BigDecimal("1.50"))))
                    .hasToString("1.5");
            Tally cells = (Tally) ((Function.Aggregate) Calls.function(name)).starter();
            long[] at = new long[cells.size() + 2];
            assertThat(cells.add(at, 1, Calls.value(new BigDecimal("1.50")))).isTrue();
            assertThat(cells.add(at, 1, Calls.value(new BigDecimal("1.5")))).isTrue();
            assertThat(cells.add(at, 1, TextValue.of("2"))).isFalse();
            assertThat(cells.result(at, 1)).hasToString("1.50");
            assertThat(cells.resumed(at, 1).result()).hasToString("1.50");
        }
    }

    @Test
    void anElementWithoutTextIsBlank() {
        RecordBuilder empty = RecordValue.builder(Layout.EMPTY, null).element(FieldName.of("Note"));
        RecordValue blank = empty.build();
        RecordBuilder filled = RecordValue.builder(Layout.EMPTY, null).element(FieldName.of("Note"));
        filled.put(FieldName.OWN_TEXT, TextValue.of("calm"));
        RecordBuilder around = RecordValue.builder(Layout.EMPTY, null).element(FieldName.of("Notes"));
        around.put(FieldName.of("Note"), blank);
        RecordValue plain = RecordValue.builder(Layout.EMPTY, null).build();
        assertThat(call("blank", blank)).hasToString("true");
        assertThat(call("filled", blank)).isEqualTo(Missing.ABSENT);
        assertThat(call("blank", filled.build())).hasToString("false");
        assertThat(call("blank", around.build())).hasToString("false");
        assertThat(call("blank", plain)).hasToString("false");
    }

    @ParameterizedTest
    @CsvSource({
        "0.5, #.##, .5",
        "0, #.##, 0",
        "1.5, #.00, 1.50",
        "0.004, 0.00, 0.00",
        "-0.004, 0.00, 0.00",
        "-0.006, 0.00, -0.01",
        "1234567.5, '#,##0.0#', '1,234,567.5'",
        "999, '#,##0', 999",
        "0.256, 0%, 26%"
    })
    void numbersArePrintedByPatterns(String number, String pattern, String printed) {
        assertThat(call("format", new BigDecimal(number), pattern)).hasToString(printed);
    }

    @Test
    void codesAreOfVersionFour() {
        for (int i = 0; i < 50; i++) {
            assertThat(call("uuid").toString())
                    .matches("[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}");
        }
    }
}
