package dev.morphema.function;

import static dev.morphema.function.Calls.call;
import static dev.morphema.function.Calls.items;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.NumberValue;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;

/** Functions of numbers give what decimals of Java give, on both sides of what a long holds. */
class NumberFunctionProperties {
    @Provide
    Gen<BigDecimal> numbers() {
        Gen<BigInteger> digits = Gens.oneOf(
                Gens.bigIntegers().between(BigInteger.valueOf(-999), BigInteger.valueOf(999)),
                Gens.longs().map(BigInteger::valueOf),
                Gens.bigIntegers().between(BigInteger.TEN.pow(30).negate(), BigInteger.TEN.pow(30)),
                Gens.of(5, 15, 25, -5, -25, 10, 100, 999, 9999).map(BigInteger::valueOf));
        return digits.flatMap(number -> Gens.integers().between(0, 22).map(scale -> new BigDecimal(number, scale)));
    }

    @Property
    void numbersAreRoundedInEveryWay(@ForAll("numbers") BigDecimal number, @ForAll @IntRange(max = 24) int digits) {
        for (RoundingMode mode : RoundingMode.values()) {
            if (mode != RoundingMode.UNNECESSARY) {
                String name = mode.name().toLowerCase(Locale.ROOT).replace('_', ' ');
                assertThat(call("round", number, digits, name))
                        .hasToString(number.setScale(digits, mode).toPlainString());
            }
        }
        assertThat(call("round", number, digits))
                .hasToString(number.setScale(digits, RoundingMode.HALF_UP).toPlainString());
        assertThat(call("round", number)).isEqualTo(call("round", number, 0));
        assertThat(call("floor", number))
                .hasToString(number.setScale(0, RoundingMode.FLOOR).toPlainString());
        assertThat(call("ceiling", number))
                .hasToString(number.setScale(0, RoundingMode.CEILING).toPlainString());
        assertThat(call("abs", number)).hasToString(number.abs().toPlainString());
    }

    @Property
    void powersAreExact(@ForAll("numbers") BigDecimal number, @ForAll @IntRange(max = 9) int exponent) {
        assertThat(call("power", number, exponent))
                .isEqualTo(Calls.value(
                        number.pow(exponent).toPlainString().equals("0") ? BigDecimal.ZERO : number.pow(exponent)));
        if (number.signum() != 0) {
            BigDecimal inverse = BigDecimal.ONE.divide(number.pow(exponent), new MathContext(34, RoundingMode.HALF_UP));
            assertThat(((NumberValue) call("power", number, -exponent)).decimal())
                    .isEqualByComparingTo(inverse);
        }
    }

    @Property
    void wholeNumbersAreCountedUp(
            @ForAll @IntRange(min = -9, max = 9) int from, @ForAll @IntRange(min = -9, max = 9) int to) {
        assertThat(items(call("range", from, to)))
                .isEqualTo(IntStream.rangeClosed(from, to)
                        .mapToObj(String::valueOf)
                        .toList());
    }

    @Property(tries = 1)
    void aRangeHasAMillionNumbersAtMost() {
        assertThat(items(call("range", 1, 1_000_000))).hasSize(1_000_000);
        assertThatThrownBy(() -> call("range", 1, 1_000_001)).isInstanceOf(ProblemException.class);
    }

    @Property
    void numbersAreFormattedAsJavaDoes(@ForAll("numbers") BigDecimal number) {
        for (String pattern : List.of("0", "#,##0.00", "0.###", "000.0#", "#,##0", "0.0%", "kg 0.0", "0.00 t")) {
            DecimalFormat java = new DecimalFormat(pattern, DecimalFormatSymbols.getInstance(Locale.ROOT));
            java.setRoundingMode(RoundingMode.HALF_UP);
            String expected = java.format(number);
            // What rounds to zero has no sign here.
            boolean zero = !expected.matches(".*[1-9].*");
            assertThat(call("format", number, pattern)).hasToString(zero ? expected.replace("-", "") : expected);
        }
    }

    @Property
    void marksOfOtherCountriesAreWrittenAndRead(@ForAll("numbers") BigDecimal number) {
        BigDecimal shown = number.setScale(2, RoundingMode.HALF_UP);
        String text = call("format", number, "#,##0.00", ",").toString();
        assertThat(text).isEqualTo(call("format", number, "#,##0.00", ",", ".").toString());
        assertThat(call("number", text, ",", ".")).hasToString(shown.toPlainString());
        String spaced = call("format", number, "#,##0.00", ".", " ").toString();
        assertThat(call("number", spaced, ".", " ")).hasToString(shown.toPlainString());
    }

    @Property
    void aNumberIsReadAsItPrints(@ForAll("numbers") BigDecimal number) {
        assertThat(call("number", number.toPlainString())).hasToString(number.toPlainString());
        assertThat(call("number", " " + number.toPlainString() + "\n")).isEqualTo(Calls.value(number));
        if (number.stripTrailingZeros().scale() <= 0) {
            assertThat(call("integer", number.toPlainString())).isEqualTo(Calls.value(number));
        } else {
            assertThatThrownBy(() -> call("integer", number)).hasMessageContaining("not a whole number");
        }
    }

    @Property
    void theNearestLongIsTheNearest(@ForAll("numbers") BigDecimal number) {
        BigInteger most = BigInteger.valueOf(Long.MAX_VALUE);
        BigInteger least = BigInteger.valueOf(Long.MIN_VALUE);
        assertThat(NumberValue.of(number).nearestLong())
                .isEqualTo(number.toBigInteger().min(most).max(least).longValueExact());
    }
}
