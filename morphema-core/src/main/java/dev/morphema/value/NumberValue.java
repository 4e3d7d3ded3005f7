package dev.morphema.value;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * An exact decimal number. It keeps the digits it was written with ({@code 1.50} stays {@code
 * 1.50}); two numbers are equal if they have the same value, however they are written. There is no
 * negative zero and no E-notation.
 */
public final class NumberValue extends Value implements Comparable<NumberValue> {
    /** Zero. */
    public static final NumberValue ZERO = new NumberValue(0L, 0);

    /** Digits that a division keeps. */
    private static final MathContext DIVISION = new MathContext(34, RoundingMode.HALF_UP);

    /**
     * The longest number, in digits before or after the point; more is refused, so that none can
     * fill the memory.
     */
    static final int MOST_DIGITS = 2_000;

    /** Every number of so many digits is a long. */
    static final int MOST_LONG_DIGITS = 18;

    /** Sign, digits, a zero before the point, and the point. */
    static final int MOST_PRINTED = MOST_LONG_DIGITS + 3;

    private static final long[] POWERS = new long[MOST_LONG_DIGITS + 1];

    static {
        POWERS[0] = 1;
        for (int i = 1; i < POWERS.length; i++) {
            POWERS[i] = POWERS[i - 1] * 10;
        }
    }

    /** The number is this, divided by ten to the power of the scale, where no decimal is kept. */
    private final long unscaled;

    private final int scale;
    /** Kept where the number has more digits than a long surely holds. */
    private final @Nullable BigDecimal decimal;

    private NumberValue(long unscaled, int scale) {
        this.unscaled = unscaled;
        this.scale = scale;
        this.decimal = null;
    }

    private NumberValue(BigDecimal decimal) {
        this.unscaled = 0;
        this.scale = decimal.scale();
        this.decimal = decimal;
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
        BigDecimal plain = number.scale() < 0 ? number.setScale(0) : number;
        return plain.precision() <= MOST_LONG_DIGITS && plain.scale() <= MOST_LONG_DIGITS
                ? new NumberValue(plain.unscaledValue().longValue(), plain.scale())
                : new NumberValue(plain);
    }

    /** {@return the value of a whole number} */
    public static NumberValue of(long number) {
        return number == 0 ? ZERO : of(number, 0);
    }

    /** {@return whether a number has so few digits that it is kept in a long} */
    static boolean isShort(long unscaled) {
        return unscaled < POWERS[MOST_LONG_DIGITS] && unscaled > -POWERS[MOST_LONG_DIGITS];
    }

    /**
     * A number whose parts were calculated in longs; one that is too large for that goes on as a
     * decimal.
     */
    private static NumberValue of(long unscaled, int scale) {
        return isShort(unscaled) ? new NumberValue(unscaled, scale) : of(BigDecimal.valueOf(unscaled, scale));
    }

    /**
     * Reads a number as people write it: white space around it is dropped, then a sign, digits and
     * a point.
     *
     * @return the number, or nothing if the text is none
     */
    public static Optional<NumberValue> parse(String text) {
        return Optional.ofNullable(NumberParser.read(text));
    }

    /** {@return the number that was once taken apart as {@link #unscaled} and {@link #scale}} */
    static NumberValue ofParts(long unscaled, int scale) {
        return new NumberValue(unscaled, scale);
    }

    /** {@return the digits of a number that is no large decimal} */
    long unscaled() {
        return unscaled;
    }

    /** {@return how many digits stand after the point} */
    int scale() {
        return scale;
    }

    /** {@return the number if it is kept as a decimal, or null if it is of few digits} */
    @Nullable
    BigDecimal largeDecimal() {
        return decimal;
    }

    /** {@return the bytes that it takes on the heap, about} */
    long bytes() {
        return decimal == null ? 32 : 96 + decimal.precision() / 2;
    }

    /** {@return the number as a decimal} */
    public BigDecimal decimal() {
        return decimal == null ? BigDecimal.valueOf(unscaled, scale) : decimal;
    }

    /** {@return this plus the other, all digits kept} */
    public NumberValue plus(NumberValue other) {
        if (decimal == null && other.decimal == null) {
            // Both are below 10^18, so the sum of two of one scale is a long.
            if (scale == other.scale) {
                return of(unscaled + other.unscaled, scale);
            }
            int common = Math.max(scale, other.scale);
            long a = raised(unscaled, common - scale);
            long b = raised(other.unscaled, common - other.scale);
            if (a != Long.MIN_VALUE && b != Long.MIN_VALUE) {
                return of(a + b, common);
            }
        }
        return of(decimal().add(other.decimal()));
    }

    /** {@return a power of ten with at most 18 zeros} */
    static long tenTo(int power) {
        return POWERS[power];
    }

    /**
     * {@return a number times a power of ten, or the least long if the product has more than 18
     * digits}
     */
    static long raised(long number, int power) {
        long most = POWERS[MOST_LONG_DIGITS - power] - 1;
        return number <= most && number >= -most ? number * POWERS[power] : Long.MIN_VALUE;
    }

    /** {@return this less the other, all digits kept} */
    public NumberValue minus(NumberValue other) {
        return plus(other.negated());
    }

    /** {@return this times the other, all digits kept} */
    public NumberValue times(NumberValue other) {
        if (decimal == null && other.decimal == null && scale + other.scale <= MOST_LONG_DIGITS) {
            long product = unscaled * other.unscaled;
            long high = Math.multiplyHigh(unscaled, other.unscaled);
            if (high == product >> 63) {
                return of(product, scale + other.scale);
            }
        }
        return of(decimal().multiply(other.decimal()));
    }

    /**
     * {@return this divided by the other, to 34 digits, in the shortest form}
     *
     * @throws ArithmeticException if the other is zero
     */
    public NumberValue dividedBy(NumberValue other) {
        NumberValue exact = dividedInLongs(other);
        return exact != null
                ? exact
                : of(decimal().divide(other.decimal(), DIVISION).stripTrailingZeros());
    }

    /**
     * The shortest exact quotient, if it and all on the way to it fit into longs. Most divisions in
     * mappings are such, by 1000 or by 60; the general way takes a hundred times as long.
     */
    private @Nullable NumberValue dividedInLongs(NumberValue other) {
        if (decimal != null || other.decimal != null || other.unscaled == 0) {
            return null;
        }
        int power = power(other.unscaled);
        if (power >= 0) {
            return shortest(unscaled, scale - other.scale + power);
        }
        long dividend = unscaled;
        int digits = scale - other.scale;
        while (dividend % other.unscaled != 0) {
            if (Math.abs(dividend) > Long.MAX_VALUE / 10) {
                return null;
            }
            dividend *= 10;
            digits++;
        }
        return shortest(dividend / other.unscaled, digits);
    }

    /** {@return which power of ten a number is, or -1} */
    private static int power(long number) {
        int power = 0;
        while (power < POWERS.length && POWERS[power] < number) {
            power++;
        }
        return power < POWERS.length && POWERS[power] == number ? power : -1;
    }

    /**
     * {@return a number divided by ten to some power, without zeros at its end; null if it does not
     * fit}
     */
    private static @Nullable NumberValue shortest(long number, int places) {
        long quotient = number;
        int digits = quotient == 0 ? 0 : places;
        while (digits > 0 && quotient % 10 == 0) {
            quotient /= 10;
            digits--;
        }
        while (digits < 0) {
            if (Math.abs(quotient) > Long.MAX_VALUE / 10) {
                return null;
            }
            quotient *= 10;
            digits++;
        }
        return digits > MOST_LONG_DIGITS ? null : of(quotient, digits);
    }

    /**
     * {@return the remainder of the division, with the sign of this number}
     *
     * @throws ArithmeticException if the other is zero
     */
    public NumberValue remainder(NumberValue other) {
        return of(decimal().remainder(other.decimal()));
    }

    /** {@return the number with the other sign} */
    public NumberValue negated() {
        return decimal == null ? new NumberValue(-unscaled, scale) : new NumberValue(decimal.negate());
    }

    /** {@return the number with exactly that many digits after the point} */
    public NumberValue rounded(int digits, RoundingMode mode) {
        if (decimal == null && digits >= 0 && digits <= MOST_LONG_DIGITS) {
            if (digits >= scale) {
                long raised = raised(unscaled, digits - scale);
                if (raised != Long.MIN_VALUE) {
                    return new NumberValue(raised, digits);
                }
            } else if (mode == RoundingMode.HALF_UP) {
                long divisor = POWERS[scale - digits];
                long quotient = dividedByPower(unscaled, scale - digits);
                long rest = Math.abs(unscaled - quotient * divisor);
                return new NumberValue(rest >= divisor - rest ? quotient + Long.signum(unscaled) : quotient, digits);
            }
        }
        return of(decimal().setScale(digits, mode));
    }

    /**
     * {@return a number divided by ten to some power}; the most common are constants, by which to
     * divide is to multiply
     */
    private static long dividedByPower(long number, int power) {
        return switch (power) {
            case 1 -> number / 10;
            case 2 -> number / 100;
            case 3 -> number / 1_000;
            case 4 -> number / 10_000;
            case 5 -> number / 100_000;
            case 6 -> number / 1_000_000;
            default -> number / POWERS[power];
        };
    }

    /**
     * {@return the number without what stands after the point; where that is no long, the nearest
     * one}
     */
    public long nearestLong() {
        if (decimal == null) {
            return unscaled / POWERS[scale];
        }
        BigInteger whole = decimal.toBigInteger();
        if (whole.bitLength() < Long.SIZE) {
            return whole.longValue();
        }
        return whole.signum() > 0 ? Long.MAX_VALUE : Long.MIN_VALUE;
    }

    /** {@return -1, 0 or 1} */
    public int sign() {
        return decimal == null ? Long.signum(unscaled) : decimal.signum();
    }

    /** {@return whether it is written without a fraction} */
    public boolean hasNoFraction() {
        return decimal == null ? scale == 0 : decimal.scale() <= 0;
    }

    /** {@return whether there is nothing but zeros after the point} */
    public boolean isWhole() {
        if (decimal == null) {
            return unscaled % POWERS[scale] == 0;
        }
        return decimal.signum() == 0 || decimal.stripTrailingZeros().scale() <= 0;
    }

    @Override
    public Kind kind() {
        return Kind.NUMBER;
    }

    @Override
    public int compareTo(NumberValue other) {
        if (decimal == null && other.decimal == null) {
            if (scale == other.scale) {
                return Long.compare(unscaled, other.unscaled);
            }
            int common = Math.max(scale, other.scale);
            long a = raised(unscaled, common - scale);
            long b = raised(other.unscaled, common - other.scale);
            if (a != Long.MIN_VALUE && b != Long.MIN_VALUE) {
                return Long.compare(a, b);
            }
        }
        return decimal().compareTo(other.decimal());
    }

    /** Equal by value: 1.50 equals 1.5. */
    @Override
    public boolean equals(Object other) {
        return other instanceof NumberValue n && compareTo(n) == 0;
    }

    @Override
    public int hashCode() {
        if (decimal == null) {
            long digits = unscaled;
            int left = digits == 0 ? 0 : scale;
            while (left > 0 && digits % 10 == 0) {
                digits /= 10;
                left--;
            }
            return Hashing.of(digits, left);
        }
        BigDecimal shortest = decimal.stripTrailingZeros();
        NumberValue same = of(shortest);
        return same.decimal == null ? same.hashCode() : Hashing.of(shortest.toString());
    }

    /** {@return the number in plain digits} */
    @Override
    public String toString() {
        if (decimal != null) {
            return decimal.toPlainString();
        }
        if (scale == 0) {
            return Long.toString(unscaled);
        }
        String digits = Long.toString(Math.abs(unscaled));
        StringBuilder text = new StringBuilder(digits.length() + scale + 3);
        if (unscaled < 0) {
            text.append('-');
        }
        int whole = digits.length() - scale;
        if (whole <= 0) {
            text.append("0.").append("0".repeat(-whole)).append(digits);
        } else {
            text.append(digits, 0, whole).append('.').append(digits, whole, digits.length());
        }
        return text.toString();
    }

    @Override
    public int mostBytes() {
        return MOST_PRINTED;
    }

    /** {@return where the digits end, or -1 if there are more than a long surely holds} */
    @Override
    public int printed(byte[] into, int from) {
        if (decimal != null) {
            return -1;
        }
        int at = from;
        if (unscaled < 0) {
            into[at++] = '-';
        }
        long rest = Math.abs(unscaled);
        int digits = 1;
        while (digits < POWERS.length && rest >= POWERS[digits]) {
            digits++;
        }
        int end = at + Math.max(digits, scale + 1) + (scale > 0 ? 1 : 0);
        int point = scale > 0 ? end - 1 - scale : -1;
        int i = end;
        while (i > at) {
            i--;
            if (i == point) {
                into[i] = '.';
            } else {
                into[i] = (byte) ('0' + rest % 10);
                rest /= 10;
            }
        }
        return end;
    }
}
