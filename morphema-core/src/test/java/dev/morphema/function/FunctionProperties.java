package dev.morphema.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Comparison;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;

/** What holds for all functions, whatever they are given. */
class FunctionProperties {
    private static final Value RECORD = RecordValue.of(
            Layout.of(List.of(FieldName.of("a"), FieldName.of("b"))),
            new Value[] {Calls.value("x"), Calls.value(5)},
            new Origin("test", 1, 1));

    /** Values that are usual, and such as are at the end of what there is. */
    @Provide
    Gen<Value> values() {
        return Gens.of(
                        "",
                        " ",
                        "abc",
                        "a😀c",
                        "\uD83D",
                        "12.50",
                        "-1e5",
                        "(",
                        "[a",
                        "$1",
                        "\\",
                        "%",
                        "#,##0.00",
                        "0.0.0",
                        "yyyy-MM-dd",
                        "yyyy[",
                        "'",
                        "q",
                        "P1M",
                        "PT15M",
                        "PT-0.000000001S",
                        "P99999999999999D",
                        "2026-02-30",
                        "2026-03-05",
                        "+999999999-12-31",
                        "14:30",
                        "2026-03-29T02:30:00",
                        "Europe/Oslo",
                        "+18:00",
                        "Atlantis",
                        "epoch",
                        "half even",
                        "md5",
                        "2147483648",
                        0,
                        1,
                        -1,
                        2.5,
                        7,
                        "0.00000000000000000000000000000000000001",
                        Integer.MAX_VALUE,
                        Long.MAX_VALUE,
                        Long.MIN_VALUE,
                        "1" + "0".repeat(40),
                        "-1" + "0".repeat(40),
                        "1" + "0".repeat(990),
                        true,
                        false,
                        LocalDate.of(2026, 3, 5),
                        LocalDate.MAX,
                        LocalDate.MIN,
                        LocalTime.MAX,
                        LocalTime.MIDNIGHT,
                        LocalDateTime.MAX,
                        LocalDateTime.MIN,
                        LocalDateTime.of(2026, 3, 29, 2, 30),
                        OffsetDateTime.MAX,
                        OffsetDateTime.MIN,
                        OffsetDateTime.parse("2026-03-05T14:30:00+01:00"),
                        List.of(),
                        List.of("a", 1),
                        List.of(List.of(1)),
                        RECORD,
                        Missing.NULL,
                        Missing.ABSENT)
                .map(value -> value instanceof String text && text.matches("-?[0-9.]{38,}")
                        ? Calls.value(new BigDecimal(text))
                        : Calls.value(value));
    }

    @Provide
    Gen<String> names() {
        return Gens.of(List.copyOf(FunctionTable.standard().names()));
    }

    @Property(tries = 5_000)
    void whateverAFunctionIsGivenItGivesAValueOrTellsAProblem(
            @ForAll("names") String name, @ForAll List<@From("values") Value> values) {
        Function function = Calls.function(name);
        List<Value> arguments = new ArrayList<>(values);
        while (arguments.size() < function.signature().least()) {
            arguments.add(arguments.isEmpty() ? Calls.value("abc") : arguments.get(0));
        }
        int most = Math.min(function.signature().most(), arguments.size());
        String called = name + arguments;
        try {
            Value result = function instanceof Function.Aggregate
                    ? Calls.over(
                            name,
                            arguments,
                            arguments.subList(1, Math.max(1, most)).toArray())
                    : Calls.call(name, arguments.subList(0, most).toArray());
            assertThat(result.toString()).as(called).isNotNull();
            if (function instanceof Function.Scalar scalar && !name.equals("uuid")) {
                Object[] constants = arguments.subList(0, most).toArray();
                assertThat(Comparison.key(Calls.callOfConstants(scalar, constants)))
                        .as("what does not change may be looked at before: " + called)
                        .isEqualTo(Comparison.key(result));
            }
        } catch (ProblemException e) {
            assertThat(e.problem().message()).as(called).isNotBlank().doesNotContain("Exception", "null");
        } catch (RuntimeException e) {
            fail(called, e);
        }
    }
}
