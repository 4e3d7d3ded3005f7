package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.List;

/** Numbers agree with decimals of any size. */
class NumberProperties {
    @Provide
    Gen<BigDecimal> decimals() {
        return Gens.oneOf(
                Gens.bigDecimals().ofScale(6),
                Gens.integers().between(-2000, 2000).map(i -> BigDecimal.valueOf(i, 2)),
                Gens.longs().map(l -> BigDecimal.valueOf(l, 9)),
                Gens.bigIntegers().map(b -> new BigDecimal(b, 3)));
    }

    @Property
    void sumsAndProductsAreExact(@ForAll("decimals") BigDecimal a, @ForAll("decimals") BigDecimal b) {
        NumberValue x = NumberValue.of(a);
        NumberValue y = NumberValue.of(b);
        assertThat(x.plus(y).decimal()).isEqualByComparingTo(a.add(b));
        assertThat(x.minus(y).decimal()).isEqualByComparingTo(a.subtract(b));
        assertThat(x.times(y).decimal()).isEqualByComparingTo(a.multiply(b));
    }

    @Property
    void quotientsAreRoundedTo34DigitsAndShortest(@ForAll("decimals") BigDecimal a, @ForAll("decimals") BigDecimal b) {
        if (b.signum() != 0) {
            BigDecimal expected =
                    a.divide(b, new MathContext(34, RoundingMode.HALF_UP)).stripTrailingZeros();
            String shown = expected.scale() < 0 ? expected.setScale(0).toPlainString() : expected.toPlainString();
            assertThat(NumberValue.of(a).dividedBy(NumberValue.of(b)).toString())
                    .isEqualTo(shown);
        }
    }

    @Property
    void whatIsPrintedReadsBackTheSame(@ForAll("decimals") BigDecimal a) {
        NumberValue number = NumberValue.of(a);
        NumberValue back = NumberValue.parse(number.toString()).orElseThrow();
        assertThat(back.toString()).isEqualTo(number.toString());
        assertThat(back).isEqualTo(number).hasSameHashCodeAs(number);
    }

    @Property
    void orderAndEqualityAreThoseOfTheValue(@ForAll("decimals") BigDecimal a, @ForAll("decimals") BigDecimal b) {
        assertThat(Integer.signum(NumberValue.of(a).compareTo(NumberValue.of(b))))
                .isEqualTo(a.compareTo(b));
        assertThat(NumberValue.of(a).equals(NumberValue.of(b))).isEqualTo(a.compareTo(b) == 0);
        assertThat(NumberValue.of(a.setScale(a.scale() + 3))).isEqualTo(NumberValue.of(a));
    }

    @Property
    void textsAreOrderedByCodePoint(@ForAll String a, @ForAll String b) {
        int[] x = a.codePoints().toArray();
        int[] y = b.codePoints().toArray();
        boolean pairs = a.chars().allMatch(c -> !Character.isSurrogate((char) c))
                && b.chars().allMatch(c -> !Character.isSurrogate((char) c));
        if (pairs) {
            assertThat(Integer.signum(Comparison.compareTexts(a, b)))
                    .isEqualTo(Integer.signum(java.util.Arrays.compare(x, y)));
        }
        assertThat(Comparison.compareTexts("\uFFFD", "\uD83D\uDE00")).isNegative();
    }

    @Property
    void aSumOfManyIsThatOfTheDecimals(@ForAll List<@From("decimals") BigDecimal> numbers) {
        RunningSum sum = new RunningSum();
        numbers.forEach(number -> sum.plus(NumberValue.of(number)));
        assertThat(sum.total().toString())
                .isEqualTo(numbers.stream()
                        .map(NumberValue::of)
                        .reduce(NumberValue.ZERO, NumberValue::plus)
                        .toString());
        assertThat(sum.total().decimal())
                .isEqualByComparingTo(numbers.stream().reduce(BigDecimal.ZERO, BigDecimal::add));
    }

    /** In cells as long as they hold it; then as an object, from where the cells were. */
    @Property
    void aSumInCellsIsThatOfTheDecimals(@ForAll List<@From("decimals") BigDecimal> numbers) {
        long[] cells = {7, 0, 0, 7};
        RunningSum sum = new RunningSum();
        boolean inCells = true;
        for (BigDecimal number : numbers) {
            long before = cells[1];
            if (inCells && !NumberCells.add(cells, 1, NumberValue.of(number))) {
                inCells = false;
                assertThat(cells[1]).isEqualTo(before);
                sum.plus(NumberCells.get(cells, 1));
            }
            if (!inCells) {
                sum.plus(NumberValue.of(number));
            }
        }
        NumberValue total = inCells ? NumberCells.get(cells, 1) : sum.total();
        assertThat(total.toString())
                .isEqualTo(numbers.stream()
                        .map(NumberValue::of)
                        .reduce(NumberValue.ZERO, NumberValue::plus)
                        .toString());
        assertThat(new long[] {cells[0], cells[3]}).containsOnly(7);
    }

    @Property
    void numbersInCellsAreComparedByValue(@ForAll("decimals") BigDecimal a, @ForAll("decimals") BigDecimal b) {
        long[] cells = new long[NumberCells.SIZE];
        if (NumberCells.put(cells, 0, NumberValue.of(a))) {
            assertThat(Integer.signum(NumberCells.compare(cells, 0, NumberValue.of(b))))
                    .isEqualTo(a.compareTo(b));
            assertThat(NumberCells.get(cells, 0)).hasToString(NumberValue.of(a).toString());
        }
    }
}
