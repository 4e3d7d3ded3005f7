package dev.morphema.value;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.ZoneOffset;
import java.util.Objects;

/**
 * Numbers that are mostly in the order of the values they stand for, so that these, which lie
 * anywhere in the memory, need not be looked at to sort them. Where the codes of two {@linkplain
 * #areAlike alike} values differ, the values are in the same order; where they are the same, the
 * values are equal if the code {@linkplain #isExact is exact}.
 */
public final class SortCode {
    /** What nothing is: it comes last in either direction. */
    private static final long LAST = Long.MAX_VALUE;

    /** The lowest bit of an ascending code: there is more to the value than the code tells. */
    private static final long MORE = 1;

    /** No code of a number that fits is as far from zero. */
    private static final long BEYOND_NUMBERS = 1L << 62;

    /** After the point. */
    private static final int DIGITS = 4;

    private static final int CHARACTERS = 7;

    private SortCode() {}

    /** {@return the code of a value, in ascending or in descending order} */
    public static long of(Value value, boolean descending) {
        if (value.isMissing()) {
            return LAST;
        }
        long code = ascending(value);
        return descending ? ~code : code;
    }

    /**
     * {@return a code of what the code of a value does not tell, for values of which that is the
     * same}
     */
    public static long ofRest(Value value, boolean descending) {
        long code = value instanceof TextValue text ? rest(text) : MORE;
        return descending ? ~code : code;
    }

    /** {@return whether two values with this code are surely equal} */
    public static boolean isExact(long code, boolean descending) {
        return code == LAST || (code & MORE) == (descending ? MORE : 0);
    }

    /**
     * {@return whether the order of two values, neither of which is nothing, is that of their
     * codes}
     */
    public static boolean areAlike(Value a, Value b) {
        return a instanceof DateTimeValue x && b instanceof DateTimeValue y
                ? (x.offset() == null) == (y.offset() == null)
                : a.kind() == b.kind();
    }

    private static long ascending(Value value) {
        return switch (value.kind()) {
            case TEXT -> text((TextValue) value);
            case NUMBER -> number((NumberValue) value);
            case BOOLEAN -> ((BooleanValue) value).isTrue() ? 2 : 0;
            case DATE -> ((DateValue) value).date().toEpochDay() << 1;
            case TIME -> ((TimeValue) value).time().toNanoOfDay() << 1;
            case DATETIME -> instant((DateTimeValue) value);
            default -> MORE;
        };
    }

    private static long instant(DateTimeValue datetime) {
        ZoneOffset offset = Objects.requireNonNullElse(datetime.offset(), ZoneOffset.UTC);
        return datetime.local().toEpochSecond(offset) << 1 | (datetime.local().getNano() == 0 ? 0 : MORE);
    }

    private static long number(NumberValue number) {
        if (number.largeDecimal() != null) {
            return large(number.decimal());
        }
        int more = number.scale() - DIGITS;
        if (more > 0) {
            long power = NumberValue.tenTo(more);
            long floor = Math.floorDiv(number.unscaled(), power);
            return floor << 1 | (floor * power == number.unscaled() ? 0 : MORE);
        }
        long raised = NumberValue.raised(number.unscaled(), -more);
        return raised == Long.MIN_VALUE ? beyond(number.decimal()) : raised << 1;
    }

    /** As for a number that is kept in a long, to which this may be equal. */
    private static long large(BigDecimal number) {
        BigDecimal floor = number.setScale(DIGITS, RoundingMode.FLOOR);
        if (floor.precision() > NumberValue.MOST_LONG_DIGITS) {
            return beyond(number);
        }
        return floor.unscaledValue().longValue() << 1 | (floor.compareTo(number) == 0 ? 0 : MORE);
    }

    private static long beyond(BigDecimal number) {
        return (number.signum() < 0 ? -BEYOND_NUMBERS : BEYOND_NUMBERS) | MORE;
    }

    /**
     * The first characters, and how many there are; beyond ASCII one is like another, and they are
     * above all others.
     */
    private static long text(TextValue text) {
        return text.isPlain() ? text(text.eightFrom(0) >>> Byte.SIZE, text.length()) : text(text.text(), 0);
    }

    /** The next characters, if the first are in ASCII. */
    private static long rest(TextValue text) {
        int length = text.length() - CHARACTERS;
        if (text.isPlain()) {
            long next = length > 1 ? text.eightFrom(Long.BYTES) >>> 2 * Byte.SIZE : 0;
            long eighth = length > 0 ? text.eightFrom(0) & 0xFF : 0;
            return text(eighth << Byte.SIZE * (CHARACTERS - 1) | next, Math.max(0, length));
        }
        String characters = text.text();
        for (int i = 0; i < CHARACTERS && i < characters.length(); i++) {
            if (characters.charAt(i) >= 0x80) {
                return MORE;
            }
        }
        return text(characters, CHARACTERS);
    }

    private static long text(String characters, int from) {
        int length = Math.max(0, characters.length() - from);
        long code = 0;
        for (int i = 0; i < CHARACTERS; i++) {
            char c = i < length ? characters.charAt(from + i) : 0;
            if (c >= 0x80) {
                return text((code << Byte.SIZE | 0x80) << Byte.SIZE * (CHARACTERS - 1 - i), CHARACTERS + 1);
            }
            code = code << Byte.SIZE | c;
        }
        return text(code, length);
    }

    private static long text(long first, int length) {
        // One more than there are: no code of a text is zero, which would be nothing when it is
        // turned round.
        long count = length > CHARACTERS ? CHARACTERS + 2 << 1 | MORE : length + 1L << 1;
        // The highest bit is a sign, and negative numbers come first.
        return (first << Byte.SIZE | count) ^ Long.MIN_VALUE;
    }
}
