package dev.morphema.value;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * An exact decimal number. It keeps the digits it was written with ({@code 1.50} stays {@code 1.50}); two numbers are
 * equal if they have the same value, however they are written. There is no negative zero and no E-notation.
 */
public final class NumberValue implements Value, Comparable<NumberValue> {
    /** Zero. */
    public static final NumberValue ZERO = new NumberValue(BigDecimal.ZERO);

    /** Digits that a division keeps. */
    private static final MathContext DIVISION = new MathContext(34, RoundingMode.HALF_UP);

    /** The longest number, in digits before or after the point; more is refused, so that none can fill the memory. */
    private static final int MOST_DIGITS = 2_000;

    /** Every number of so many digits is a long. */
    private static final int MOST_LONG_DIGITS = 18;

    private final BigDecimal number;

    private NumberValue(BigDecimal number) {
        this.number = number;
    }

    /**
     * {@return the value of a decimal}
     *
     * @throws ArithmeticException if it has more than 2,000 digits before or after the point
     */
    public static NumberValue of(BigDecimal number) {
        if (number.scale() > MOST_DIGITS || (long) number.precision() - number.scale() > MOST_DIGITS) {
            throw new ArithmeticException("The number has more than " + MOST_DIGITS + " digits.");
        }
        return new NumberValue(number.scale() < 0 ? number.setScale(0) : number);
    }

    /** {@return the value of a whole number} */
    public static NumberValue of(long number) {
        return number == 0 ? ZERO : new NumberValue(BigDecimal.valueOf(number));
    }

    /**
     * Reads a number as people write it: white space around it is dropped, then a sign, digits and a point.
     *
     * @return the number, or nothing if the text is none
     */
    public static Optional<NumberValue> parse(String text) {
        String t = WhiteSpace.trim(text);
        return isPlain(t) && t.length() <= MOST_DIGITS ? Optional.of(of(new BigDecimal(t))) : Optional.empty();
    }

    /** {@return whether a text is a sign, digits and at most one point with digits around it, in ASCII} */
    private static boolean isPlain(String t) {
        int i = !t.isEmpty() && (t.charAt(0) == '-' || t.charAt(0) == '+') ? 1 : 0;
        int whole = digits(t, i);
        i += whole;
        if (i < t.length() && t.charAt(i) == '.') {
            int fraction = digits(t, i + 1);
            return whole > 0 && fraction > 0 && i + 1 + fraction == t.length();
        }
        return whole > 0 && i == t.length();
    }

    private static int digits(String t, int from) {
        int i = from;
        while (i < t.length() && t.charAt(i) >= '0' && t.charAt(i) <= '9') {
            i++;
        }
        return i - from;
    }

    /** {@return the number as a decimal} */
    public BigDecimal decimal() {
        return number;
    }

    /** {@return this plus the other, all digits kept} */
    public NumberValue plus(NumberValue other) {
        return of(number.add(other.number));
    }

    /** {@return this less the other, all digits kept} */
    public NumberValue minus(NumberValue other) {
        return of(number.subtract(other.number));
    }

    /** {@return this times the other, all digits kept} */
    public NumberValue times(NumberValue other) {
        return of(number.multiply(other.number));
    }

    /**
     * {@return this divided by the other, to 34 digits, in the shortest form}
     *
     * @throws ArithmeticException if the other is zero
     */
    public NumberValue dividedBy(NumberValue other) {
        BigDecimal exact = dividedInLongs(number, other.number);
        return of(exact != null ? exact : number.divide(other.number, DIVISION).stripTrailingZeros());
    }

    /**
     * The shortest exact quotient, if it and all on the way to it fit into longs. Most divisions in mappings are such, by
     * 1000 or by 60; the general way takes a hundred times as long.
     */
    private static @Nullable BigDecimal dividedInLongs(BigDecimal a, BigDecimal b) {
        if (a.precision() > MOST_LONG_DIGITS || b.precision() > MOST_LONG_DIGITS || b.signum() == 0) {
            return null;
        }
        long dividend = a.unscaledValue().longValue();
        long divisor = b.unscaledValue().longValue();
        int scale = a.scale() - b.scale();
        while (dividend % divisor != 0) {
            if (Math.abs(dividend) > Long.MAX_VALUE / 10) {
                return null;
            }
            dividend *= 10;
            scale++;
        }
        return BigDecimal.valueOf(dividend / divisor, scale).stripTrailingZeros();
    }

    /**
     * {@return the remainder of the division, with the sign of this number}
     *
     * @throws ArithmeticException if the other is zero
     */
    public NumberValue remainder(NumberValue other) {
        return of(number.remainder(other.number));
    }

    /** {@return the number with the other sign} */
    public NumberValue negated() {
        return new NumberValue(number.negate());
    }

    /** {@return the number with exactly that many digits after the point} */
    public NumberValue rounded(int digits, RoundingMode mode) {
        return of(number.setScale(digits, mode));
    }

    /** {@return -1, 0 or 1} */
    public int sign() {
        return number.signum();
    }

    /** {@return whether there is nothing but zeros after the point} */
    public boolean isWhole() {
        return number.signum() == 0 || number.stripTrailingZeros().scale() <= 0;
    }

    @Override
    public Kind kind() {
        return Kind.NUMBER;
    }

    @Override
    public int compareTo(NumberValue other) {
        return number.compareTo(other.number);
    }

    /** Equal by value: 1.50 equals 1.5. */
    @Override
    public boolean equals(Object other) {
        return other instanceof NumberValue n && n.number.compareTo(number) == 0;
    }

    @Override
    public int hashCode() {
        return number.signum() == 0 ? 0 : number.stripTrailingZeros().hashCode();
    }

    /** {@return the number in plain digits} */
    @Override
    public String toString() {
        return number.toPlainString();
    }
}
