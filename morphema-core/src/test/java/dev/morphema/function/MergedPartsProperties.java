package dev.morphema.function;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import java.math.BigDecimal;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What parts of many values have come to, written as bytes and merged in order, is what all of them
 * come to.
 */
class MergedPartsProperties {
    /** A function over many values, with its further arguments. */
    private record Call(String name, Value... others) {
        Function.Starter starter() {
            return ((Function.Aggregate) Calls.function(name)).starter();
        }
    }

    private static final List<Call> OF_NUMBERS = Stream.of("count", "sum", "avg", "min", "max", "first", "last")
            .map(Call::new)
            .toList();
    private static final List<Call> OF_TEXTS = Stream.concat(
                    Stream.of("distinct", "sorted", "reversed", "exists", "min", "max", "join")
                            .map(Call::new),
                    Stream.of(
                            new Call("join", TextValue.of(", ")),
                            new Call("nth", NumberValue.of(1)),
                            new Call("nth", NumberValue.of(3)),
                            new Call("nth", NumberValue.of(100))))
            .toList();
    private static final List<Call> OF_TRUTHS =
            Stream.of("any", "all").map(Call::new).toList();

    @Provide
    Gen<List<List<Value>>> numbers() {
        return parts(Gens.of("0", "1.50", "1.5", "-7", "999999999999999999", "1e30", "0.000000000000000000001")
                .map(text -> NumberValue.of(new BigDecimal(text))));
    }

    @Provide
    Gen<List<List<Value>>> texts() {
        return parts(Gens.of("", "a", "b", "B", "ab", "ü", "😀").map(TextValue::of));
    }

    @Provide
    Gen<List<List<Value>>> truths() {
        return parts(Gens.of(BooleanValue.TRUE, BooleanValue.FALSE).map(truth -> truth));
    }

    private static Gen<List<List<Value>>> parts(Gen<Value> values) {
        return values.list().ofMaxSize(5).list().ofMaxSize(6);
    }

    @Property
    void ofNumbers(@ForAll @From("numbers") List<List<Value>> parts) {
        OF_NUMBERS.forEach(call -> mergedAsWhole(call, parts));
    }

    @Property
    void ofTexts(@ForAll @From("texts") List<List<Value>> parts) {
        OF_TEXTS.forEach(call -> mergedAsWhole(call, parts));
    }

    @Property
    void ofTruths(@ForAll @From("truths") List<List<Value>> parts) {
        OF_TRUTHS.forEach(call -> mergedAsWhole(call, parts));
    }

    private static void mergedAsWhole(Call call, List<List<Value>> parts) {
        Function.Accumulator whole = call.starter().start(call.others());
        feed(whole, parts.stream().flatMap(List::stream).toList());
        Function.Partial merged = call.starter().startPart(call.others());
        for (List<Value> part : parts) {
            Function.Partial taken = call.starter().startPart(call.others());
            feed(taken, part);
            merged.merge(asBytesAndBack(taken.state()));
        }
        assertThat(merged.result().toString())
                .as(call.name())
                .isEqualTo(whole.result().toString());
    }

    private static void feed(Function.Accumulator accumulator, List<Value> values) {
        for (Value value : values) {
            if (!accumulator.add(value)) {
                return;
            }
        }
    }

    private static Value[] asBytesAndBack(Value[] state) {
        ValueNames names = new ValueNames();
        ValueEncoder encoder = new ValueEncoder(names);
        encoder.row(state);
        @Nullable Value[] back = new ValueDecoder(names, true).row(encoder.bytes(), 0);
        return Stream.of(back).map(Objects::requireNonNull).toArray(Value[]::new);
    }
}
