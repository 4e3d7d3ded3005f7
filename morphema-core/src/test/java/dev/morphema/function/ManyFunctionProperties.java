package dev.morphema.function;

import static dev.morphema.function.Calls.items;
import static dev.morphema.function.Calls.over;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Functions over many values give what streams and decimals of Java give; those that can be kept in
 * cells give the same there.
 */
class ManyFunctionProperties {
    /** Whole and broken ones, some so large that their sum is beyond a long. */
    @Provide
    Gen<List<BigDecimal>> numbers() {
        return Gens.of(
                        "0",
                        "1",
                        "-1",
                        "2.50",
                        "2.5",
                        "-0.001",
                        "12345.678",
                        "9223372036854775807",
                        "-9223372036854775808",
                        "999999999999999999",
                        "0.000000000000000000001",
                        "3",
                        "7")
                .map(BigDecimal::new)
                .list()
                .ofMaxSize(12);
    }

    @Provide
    Gen<List<String>> texts() {
        return Gens.of("", "a", "b", "B", "ab", "ü", "😀", "\uFFFD", "10", "9")
                .list()
                .ofMaxSize(8);
    }

    private static Value orAbsent(Optional<?> value) {
        return value.map(Calls::value).orElse(Missing.ABSENT);
    }

    @Property
    void numbersComeToWhatDecimalsComeTo(@ForAll("numbers") List<BigDecimal> numbers) {
        BigDecimal sum = numbers.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
        Value avg = numbers.isEmpty()
                ? Missing.ABSENT
                : Calls.value(
                        sum.divide(BigDecimal.valueOf(numbers.size()), new MathContext(34, RoundingMode.HALF_UP)));
        both("count", numbers, Calls.value(numbers.size()));
        both("sum", numbers, Calls.value(sum));
        both("avg", numbers, avg);
        both("min", numbers, orAbsent(numbers.stream().min(BigDecimal::compareTo)));
        both("max", numbers, orAbsent(numbers.stream().max(BigDecimal::compareTo)));
        assertThat(items(over("sorted", numbers)))
                .isEqualTo(
                        numbers.stream().sorted().map(BigDecimal::toPlainString).toList());
        assertThat(items(over("distinct", numbers))).hasSize((int)
                numbers.stream().map(BigDecimal::stripTrailingZeros).distinct().count());
    }

    /** A function at once, and in cells as long as these can hold it, then on from there. */
    private static void both(String name, List<BigDecimal> numbers, Value expected) {
        assertThat(over(name, numbers)).as(name).isEqualTo(expected);
        Tally tally = (Tally) ((Function.Aggregate) Calls.function(name)).starter();
        long[] cells = new long[tally.size() + 1];
        int taken = 0;
        while (taken < numbers.size() && tally.add(cells, 1, Calls.value(numbers.get(taken)))) {
            taken++;
        }
        if (taken == numbers.size()) {
            assertThat(tally.result(cells, 1)).as(name + " in cells").isEqualTo(expected);
        }
        Function.Accumulator resumed = tally.resumed(cells, 1);
        numbers.subList(taken, numbers.size()).forEach(number -> resumed.add(Calls.value(number)));
        assertThat(resumed.result()).as(name + " after " + taken).isEqualTo(expected);
        assertThat(cells[0]).as("the cell before").isZero();
    }

    @Property
    void itemsAreTakenByTheirPlace(@ForAll("texts") List<String> texts, @ForAll @IntRange(min = 1, max = 9) int place) {
        assertThat(over("first", texts)).isEqualTo(orAbsent(texts.stream().findFirst()));
        assertThat(over("last", texts)).isEqualTo(orAbsent(texts.stream().reduce((a, b) -> b)));
        assertThat(over("nth", texts, place))
                .isEqualTo(orAbsent(texts.stream().skip(place - 1).findFirst()));
        assertThat(over("nth", texts, new BigDecimal("18446744073709551616").add(BigDecimal.valueOf(place))))
                .isEqualTo(Missing.ABSENT);
        List<String> reversed = new ArrayList<>(texts);
        Collections.reverse(reversed);
        assertThat(items(over("reversed", texts))).isEqualTo(reversed);
        assertThat(items(over("distinct", texts)))
                .isEqualTo(texts.stream().distinct().toList());
        assertThat(over("exists", texts)).hasToString(String.valueOf(!texts.isEmpty()));
        assertThat(over("join", texts, ", "))
                .isEqualTo(texts.isEmpty() ? Missing.ABSENT : Calls.value(String.join(", ", texts)));
        assertThat(over("join", texts))
                .isEqualTo(texts.isEmpty() ? Missing.ABSENT : Calls.value(String.join("", texts)));
    }

    /** Code point by code point, which is not the order of Java's characters. */
    @Property
    void textsAreInTheOrderOfUnicode(@ForAll("texts") List<String> texts) {
        List<String> ordered = texts.stream()
                .sorted((a, b) -> compare(
                        a.codePoints().boxed().collect(Collectors.toList()),
                        b.codePoints().boxed().collect(Collectors.toList())))
                .toList();
        assertThat(items(over("sorted", texts))).isEqualTo(ordered);
        assertThat(over("min", texts)).isEqualTo(orAbsent(ordered.stream().findFirst()));
        assertThat(over("max", texts)).isEqualTo(orAbsent(ordered.stream().reduce((a, b) -> b)));
    }

    private static int compare(List<Integer> a, List<Integer> b) {
        for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
            if (!a.get(i).equals(b.get(i))) {
                return Integer.compare(a.get(i), b.get(i));
            }
        }
        return Integer.compare(a.size(), b.size());
    }

    @Property
    void oneOrAllAreTrue(@ForAll List<Boolean> truths) {
        assertThat(over("any", truths)).hasToString(String.valueOf(truths.contains(true)));
        assertThat(over("all", truths)).hasToString(String.valueOf(!truths.contains(false)));
    }

    @Test
    void whatHasNoSumOrOrderIsToldAsSuch() {
        assertThatThrownBy(() -> over("sum", List.of(1, "x"))).hasMessageContaining("This text is not a number");
        assertThatThrownBy(() -> over("sum", List.of(true))).hasMessageContaining("Expected a number, found");
        assertThatThrownBy(() -> over("max", List.of(1, true))).hasMessageContaining("unlike kinds");
        assertThatThrownBy(() -> over("any", List.of("true"))).hasMessageContaining("Expected a boolean, found");
        assertThatThrownBy(() -> over("nth", List.of("a"), 0)).hasMessageContaining("Positions count from 1");
        assertThatThrownBy(() -> over("join", List.of(List.of("a")))).isInstanceOf(ProblemException.class);
    }
}
