package dev.morphema.function;

import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Calls functions as a mapping does: with arguments that are taken as the signature wants them. */
final class Calls {
    static final Instant NOW = Instant.parse("2026-03-05T23:30:00Z");

    private Calls() {}

    private static final Function.Context RUN = new Function.Context() {
        private final Random random = new Random(1);

        @Override
        public Instant now() {
            return NOW;
        }

        @Override
        public Random random() {
            return random;
        }

        @Override
        public <T> T kept(Class<T> kind, Object owner, Supplier<T> beginning) {
            return beginning.get();
        }
    };

    /**
     * {@return what a function of single values gives}; what is constant in a mapping gives the
     * same.
     */
    static Value call(String name, Object... arguments) {
        Function.Scalar function = (Function.Scalar) function(name);
        Value[] values = taken(function.signature(), 0, arguments);
        if (!function.traits().has(Trait.TAKES_MISSING) && Arrays.stream(values).anyMatch(Value::isMissing)) {
            return firstNothing(values);
        }
        @Nullable Value[] unknown = new Value[values.length];
        return function.maker().make(Arrays.asList(unknown)).apply(values, RUN);
    }

    /**
     * As {@link #call}, where all arguments are constants of the mapping, so that they may be
     * looked at before.
     */
    static Value callOfConstants(Function.Scalar function, Object... arguments) {
        Value[] values = taken(function.signature(), 0, arguments);
        return !function.traits().has(Trait.TAKES_MISSING)
                        && Arrays.stream(values).anyMatch(Value::isMissing)
                ? firstNothing(values)
                : function.maker().make(List.of(values)).apply(values, RUN);
    }

    private static Value firstNothing(Value[] values) {
        return Arrays.stream(values).filter(Value::isMissing).findFirst().orElseThrow();
    }

    /** {@return what a function over many values gives} */
    static Value over(String name, List<?> items, Object... others) {
        Function.Aggregate function = (Function.Aggregate) function(name);
        Value[] values = taken(function.signature(), 1, others);
        if (Arrays.stream(values).anyMatch(Value::isMissing)) {
            return Missing.ABSENT;
        }
        Function.Accumulator accumulator = function.starter().start(values);
        for (Object item : items) {
            if (!value(item).isMissing() && !accumulator.add(value(item))) {
                break;
            }
        }
        return accumulator.result();
    }

    static Function function(String name) {
        return FunctionTable.standard().find(name).orElseThrow();
    }

    private static Value[] taken(Signature signature, int from, Object[] arguments) {
        Value[] values = new Value[arguments.length];
        for (int i = 0; i < values.length; i++) {
            Value value = value(arguments[i]);
            values[i] = value.isMissing()
                    ? value
                    : signature.parameter(from + i).kind().take(value);
        }
        return values;
    }

    /** {@return what stands for a value of Java in the language} */
    static Value value(Object object) {
        if (object instanceof Value value) {
            return value;
        } else if (object instanceof String text) {
            return TextValue.of(text);
        } else if (object instanceof Boolean truth) {
            return BooleanValue.of(truth);
        } else if (object instanceof LocalDate date) {
            return new DateValue(date);
        } else if (object instanceof LocalTime time) {
            return new TimeValue(time);
        } else if (object instanceof LocalDateTime local) {
            return new DateTimeValue(local, null);
        } else if (object instanceof OffsetDateTime moment) {
            return new DateTimeValue(moment.toLocalDateTime(), moment.getOffset());
        } else if (object instanceof List<?> list) {
            List<Value> items = new ArrayList<>();
            list.forEach(item -> items.add(value(item)));
            return ListValue.of(items);
        } else if (object == Missing.ABSENT) {
            return Missing.ABSENT;
        }
        return NumberValue.of(new BigDecimal(object.toString()));
    }

    /** {@return the texts of the items of a list} */
    static List<String> items(Value list) {
        return ((ListValue) list).items().stream().map(Value::toString).toList();
    }
}
