package dev.morphema.convert;

import dev.morphema.value.Converter;
import dev.morphema.value.Kind;
import dev.morphema.value.Value;
import java.time.temporal.TemporalAccessor;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The conversion to a date, time or datetime, which reads one of fixed places straight from the
 * bytes. Immutable.
 *
 * @param kind what it makes, if that is printed with no more than what was read; null if it is
 *     moved to a zone
 * @param general reads every form, and says what is wrong with a text that has none
 * @param pattern how a text is written, or null for ISO 8601
 * @param value makes a value of what was read, or gives null if it lacks something
 */
record DateConverter(
        @Nullable Kind kind,
        Converter general,
        @Nullable DatePattern pattern,
        Function<TemporalAccessor, @Nullable Value> value)
        implements Converter {
    @Override
    public Value convert(Value text) {
        return general.convert(text);
    }

    @Override
    public @Nullable Value read(byte[] text, int from, int to) {
        TemporalAccessor read = pattern == null ? null : pattern.parse(text, from, to);
        return read == null ? null : value.apply(read);
    }

    @Override
    public @Nullable Kind prints() {
        return pattern == null ? null : kind;
    }

    @Override
    public int print(byte[] text, int from, int to, byte[] into, int at) {
        return pattern == null || kind == null ? -1 : pattern.printIso(kind, text, from, to, into, at);
    }
}
