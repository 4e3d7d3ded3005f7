package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.testing.Size;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Codes never say otherwise than the values that they stand for. */
class SortCodeProperties {
    /** Two values of one kind, often alike. */
    @Provide
    Gen<List<Value>> pairs() {
        Gen<String> texts = Gens.oneOf(
                Gens.strings().withChars("ab\u0000\u007F\u0080\uFFFD").ofMaxLength(9),
                Gens.combine(
                                Gens.of("SKB-711", "SKB-7118", "søndre", "\uD83D\uDEA2 ", "", "north quay and "),
                                Gens.strings().withChars("ab1é").ofMaxLength(9))
                        .as(String::concat));
        Gen<BigDecimal> numbers = Gens.oneOf(
                Gens.bigDecimals().ofScale(7),
                Gens.integers().between(-300, 300).map(n -> BigDecimal.valueOf(n, 5)),
                Gens.longs().map(BigDecimal::valueOf),
                Gens.bigIntegers().map(digits -> new BigDecimal(digits, 3)));
        Gen<LocalDateTime> times = Gens.combine(Gens.integers().between(-90_000, 90_000), Gens.of(0, 1, 500_000_000))
                .as((second, nano) ->
                        LocalDateTime.of(2026, 3, 5, 0, 0).plusSeconds(second).withNano(nano));
        Gen<ZoneOffset> offsets = Gens.of(ZoneOffset.UTC, ZoneOffset.ofHours(2), ZoneOffset.ofHours(-9));
        return Gens.oneOf(
                pairs(Gens.oneOf(texts.map(TextValue::of), texts.map(SortCodeProperties::ofBytes))),
                pairs(numbers.map(NumberValue::of)),
                pairs(Gens.of(BooleanValue.TRUE, BooleanValue.FALSE)),
                pairs(Gens.integers().map(day -> new DateValue(LocalDate.ofEpochDay(day)))),
                pairs(Gens.integers().between(0, 86_399).map(second -> new TimeValue(LocalTime.ofSecondOfDay(second)))),
                pairs(times.map(time -> new DateTimeValue(time, null))),
                pairs(Gens.combine(times, offsets).as(DateTimeValue::new)));
    }

    private static Gen<List<Value>> pairs(Gen<? extends Value> values) {
        return values.map(value -> (Value) value).list().ofSize(2);
    }

    /** The same text, but known by its bytes where it can be. */
    private static TextValue ofBytes(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return TextValue.of(Arrays.copyOf(bytes, bytes.length + 16), 0, bytes.length);
    }

    @Property(tries = 5_000)
    void codesAreInTheOrderOfTheValues(@ForAll @From("pairs") @Size(2) List<Value> pair, @ForAll boolean descending) {
        Value a = pair.get(0);
        Value b = pair.get(1);
        int order = Integer.signum(descending ? Comparison.compare(b, a) : Comparison.compare(a, b));
        int byCode = Long.compare(SortCode.of(a, descending), SortCode.of(b, descending));
        assertThat(SortCode.areAlike(a, b)).isTrue();
        if (byCode != 0) {
            assertThat(byCode).isEqualTo(order);
            return;
        }
        int byRest = Long.compare(SortCode.ofRest(a, descending), SortCode.ofRest(b, descending));
        if (SortCode.isExact(SortCode.of(a, descending), descending)) {
            assertThat(order).isZero();
        } else if (byRest != 0 || SortCode.isExact(SortCode.ofRest(a, descending), descending)) {
            assertThat(byRest).isEqualTo(order);
        }
    }

    @Property(tries = 500)
    void nothingComesLast(@ForAll @From("pairs") List<Value> some, @ForAll boolean descending) {
        for (Missing nothing : List.of(Missing.ABSENT, Missing.NULL)) {
            long last = SortCode.of(nothing, descending);
            assertThat(SortCode.isExact(last, descending)).isTrue();
            assertThat(some)
                    .allSatisfy(
                            value -> assertThat(SortCode.of(value, descending)).isLessThan(last));
        }
    }

    @Test
    void whatIsCommonIsTold() {
        for (Value value : List.of(TextValue.of("PL"), NumberValue.of(new BigDecimal("14299.12")), ofBytes("B25"))) {
            assertThat(SortCode.isExact(SortCode.of(value, false), false)).isTrue();
            assertThat(SortCode.isExact(SortCode.of(value, true), true)).isTrue();
        }
        TextValue bill = ofBytes("SKB-71185");
        assertThat(SortCode.isExact(SortCode.of(bill, false), false)).isFalse();
        assertThat(SortCode.isExact(SortCode.ofRest(bill, false), false)).isTrue();
    }
}
