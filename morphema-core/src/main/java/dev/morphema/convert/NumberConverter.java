package dev.morphema.convert;

import dev.morphema.value.Converter;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberParser;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * The conversion to a number, which reads the common form straight from the bytes. Immutable.
 *
 * @param general reads every form, and says what is wrong with a text that has none
 * @param point the decimal mark, in ASCII
 * @param whole whether only whole numbers are of the type; of others, and of a fraction of zeros,
 *     the general way decides
 */
record NumberConverter(Converter general, char point, boolean whole) implements Converter {
    @Override
    public Value convert(Value value) {
        return value instanceof NumberValue number && fits(number) ? number : general.convert(value);
    }

    @Override
    public @Nullable Value read(byte[] text, int from, int to) {
        NumberValue number = NumberParser.read(text, from, to, (byte) point);
        return number != null && fits(number) ? number : null;
    }

    private boolean fits(NumberValue number) {
        return !whole || number.hasNoFraction();
    }

    @Override
    public @Nullable Kind prints() {
        return Kind.NUMBER;
    }

    @Override
    public int print(byte[] text, int from, int to, byte[] into, int at) {
        int mark = NumberParser.markIfAsPrinted(text, from, to, (byte) point);
        if (mark < 0 || whole && mark < to) {
            return -1;
        }
        int length = to - from;
        System.arraycopy(text, from, into, at, length);
        // Behind the number there is room for a mark that it has not.
        into[at + mark - from] = '.';
        return at + length;
    }
}
