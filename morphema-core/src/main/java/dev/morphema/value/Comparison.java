package dev.morphema.value;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * Equality and order of values. Texts are ordered by code point, numbers by value, times by the
 * point in time. Only {@code ==} and the order signs let a text meet a number, by reading the text;
 * keys never do.
 */
public final class Comparison {
    private Comparison() {}

    /**
     * {@return whether two values are equal, as {@code ==} says}
     *
     * @throws ProblemException if a text that meets a number is none, or the kinds cannot meet
     */
    public static boolean equal(Value a, Value b) {
        if (a.isMissing() || b.isMissing()) {
            return a == b;
        }
        if (a.kind() != b.kind() && a.isScalar() && b.isScalar()) {
            return compare(a, b) == 0;
        }
        return key(a).equals(key(b));
    }

    /**
     * {@return below 0, 0 or above 0, as a is less than, equal to or more than b}
     *
     * @throws ProblemException if they have no common order
     */
    public static int compare(Value a, Value b) {
        if (a instanceof TextValue x && b instanceof TextValue y) {
            return compareTexts(x.text(), y.text());
        }
        if (a instanceof NumberValue x && b instanceof NumberValue y) {
            return x.compareTo(y);
        }
        if (a instanceof TextValue x && b instanceof NumberValue y) {
            return number(x).compareTo(y);
        }
        if (a instanceof NumberValue x && b instanceof TextValue y) {
            return x.compareTo(number(y));
        }
        if (a instanceof DateValue x && b instanceof DateValue y) {
            return x.compareTo(y);
        }
        if (a instanceof TimeValue x && b instanceof TimeValue y) {
            return x.compareTo(y);
        }
        if (a instanceof DateTimeValue x
                && b instanceof DateTimeValue y
                && (x.offset() == null) == (y.offset() == null)) {
            return instant(x).compareTo(instant(y));
        }
        if (a instanceof BooleanValue x && b instanceof BooleanValue y) {
            return Boolean.compare(x.isTrue(), y.isTrue());
        }
        throw unlike(a, b);
    }

    /**
     * {@return as {@link #compare}, but of values of one kind: the order of several values must not
     * depend on which of them meet}
     *
     * @throws ProblemException if the kinds differ, or the values have no common order
     */
    public static int compareAlike(Value a, Value b) {
        if (a.kind() != b.kind()) {
            throw unlike(a, b);
        }
        return compare(a, b);
    }

    /** {@return the order of two texts by code point} */
    public static int compareTexts(String a, String b) {
        int length = Math.min(a.length(), b.length());
        for (int i = 0; i < length; i++) {
            char x = a.charAt(i);
            char y = b.charAt(i);
            if (x != y) {
                // A pair of surrogates stands for a code point above all that need none.
                boolean pairX = Character.isSurrogate(x);
                boolean pairY = Character.isSurrogate(y);
                return pairX == pairY ? Character.compare(x, y) : pairX ? 1 : -1;
            }
        }
        return Integer.compare(a.length(), b.length());
    }

    /** {@return whether two values are the same key} */
    public static boolean sameKey(Value a, Value b) {
        return a instanceof TextValue ? a.equals(b) : key(a).equals(key(b));
    }

    /**
     * {@return what stands for a value as a key: equal exactly for values that are equal within
     * their kind}
     *
     * @param value any value; records and lists are keys by their contents
     */
    public static Object key(Value value) {
        if (value instanceof DateTimeValue datetime) {
            return datetime.offset() == null ? datetime : new PointKey(instant(datetime));
        }
        if (value instanceof ListValue list) {
            return keys(list.items());
        }
        if (value instanceof Many many) {
            return keys(many.items());
        }
        if (value instanceof RecordValue record) {
            List<Object> key = new ArrayList<>();
            for (int i = 0; i < record.layout().fields(); i++) {
                Value field = record.get(i);
                if (field != Missing.ABSENT) {
                    key.add(record.layout().name(i));
                    key.add(key(field));
                }
            }
            return new JoinedKey(key);
        }
        return value;
    }

    /** {@return what stands for the values of a key, of which there is at least one} */
    public static Object key(Value[] values) {
        return values.length == 1 ? key(values[0]) : keys(List.of(values));
    }

    /**
     * Its hash is not that of a list: for some lists this is the same whatever the hashes of the
     * items are.
     */
    private record JoinedKey(List<Object> parts) {
        @Override
        public int hashCode() {
            return Hashing.of(parts);
        }
    }

    private static Object keys(List<Value> items) {
        List<Object> keys = new ArrayList<>(items.size());
        for (Value item : items) {
            keys.add(key(item));
        }
        return new JoinedKey(keys);
    }

    private static NumberValue number(TextValue text) {
        return NumberValue.parse(text.text())
                .orElseThrow(() -> new ProblemException(Problem.error(
                                Code.NOT_A_NUMBER, "A text is compared with a number here, but it is not a number.")
                        .withValue(text.text())
                        .withHelp("put a text in quotes to compare texts: x == \"5\"")));
    }

    /** A point in time, with a hash that cannot be foreseen. */
    private record PointKey(Instant instant) {
        @Override
        public int hashCode() {
            return Hashing.of(instant.getEpochSecond(), instant.getNano());
        }
    }

    /** The point in time; as if it were UTC if the offset is not known. */
    private static Instant instant(DateTimeValue datetime) {
        return datetime.local().toInstant(Objects.requireNonNullElse(datetime.offset(), ZoneOffset.UTC));
    }

    private static ProblemException unlike(Value a, Value b) {
        if (a instanceof DateTimeValue && b instanceof DateTimeValue) {
            return new ProblemException(
                    Problem.error(Code.KIND, "A datetime with offset cannot be compared with one without.")
                            .withHelp("datetime(x, pattern, zone) gives an offset"));
        }
        if (a.kind() == b.kind()) {
            return new ProblemException(Problem.error(
                            Code.KIND,
                            "Neither of two values comes first here, each is "
                                    + a.kind().words() + ".")
                    .withHelp(a.kind() == Kind.RECORD ? "compare a field of them" : null));
        }
        return new ProblemException(Problem.error(
                        Code.KIND,
                        "Values of unlike kinds cannot be compared: " + a.kind().words() + " and "
                                + b.kind().words() + ".")
                .withHelp(
                        a.kind() == Kind.NUMBER && b.kind() == Kind.TEXT
                                        || a.kind() == Kind.TEXT && b.kind() == Kind.NUMBER
                                ? "number(x) makes a number of a text, text(x) a text of a number"
                                : a instanceof TextValue || b instanceof TextValue
                                        ? "boolean(x), date(x), time(x) and datetime(x) make of a text what is meant"
                                        : null));
    }
}
