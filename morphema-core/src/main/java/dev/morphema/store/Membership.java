package dev.morphema.store;

import dev.morphema.value.Comparison;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * Values that are asked for by {@code in}. A text meets a number as by {@code ==}: it is equal to
 * the number that it reads as. Not thread-safe while it is filled.
 */
public final class Membership {
    private final Set<Object> keys = new HashSet<>();
    /**
     * What the texts read as, kept apart, since a text is equal to no other text that reads as the
     * same number.
     */
    private final Set<NumberValue> readTexts = new HashSet<>();

    private boolean hasNumbers;

    public void add(Value value) {
        keys.add(Comparison.key(value));
        hasNumbers |= value instanceof NumberValue;
        if (value instanceof TextValue text) {
            number(text).ifPresent(readTexts::add);
        }
    }

    public boolean contains(Value value) {
        if (keys.contains(Comparison.key(value))) {
            return true;
        }
        if (value instanceof NumberValue number) {
            return readTexts.contains(number);
        }
        return hasNumbers
                && value instanceof TextValue text
                && number(text).filter(keys::contains).isPresent();
    }

    /** {@return whether two values are the same, for who asks only once} */
    public static boolean areSame(Value a, Value b) {
        if (a instanceof NumberValue && b instanceof TextValue text) {
            return number(text).filter(a::equals).isPresent();
        }
        if (a instanceof TextValue text && b instanceof NumberValue) {
            return number(text).filter(b::equals).isPresent();
        }
        return Comparison.sameKey(a, b);
    }

    private static Optional<NumberValue> number(TextValue text) {
        return NumberValue.parse(text.text());
    }
}
