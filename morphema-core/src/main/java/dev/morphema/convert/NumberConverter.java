package dev.morphema.convert;

import dev.morphema.value.Converter;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * The conversion to a number, which reads the common form straight from the bytes. Immutable.
 *
 * @param general reads every form, and says what is wrong with a text that has none
 * @param point the decimal mark, in ASCII
 * @param fits whether a number that was read is of the type; if not, the general way tells so
 */
record NumberConverter(Converter general, char point, Predicate<NumberValue> fits) implements Converter {
    @Override
    public Value convert(Value value) {
        return value instanceof NumberValue number && fits.test(number) ? number : general.convert(value);
    }

    @Override
    public @Nullable Value read(byte[] text, int from, int to) {
        NumberValue number = NumberValue.read(text, from, to, (byte) point);
        return number != null && fits.test(number) ? number : null;
    }
}
