package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.function.ParameterKind;
import dev.morphema.function.Signature;
import dev.morphema.function.Stability;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Expr;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Tries functions with the constants of a call. What a function refuses whatever its first argument
 * is, such as a position below 1, is found before the run.
 */
final class ConstantArguments {
    /** A pure function does not ask for these. */
    private static final Function.Context NOTHING = new Function.Context() {
        @Override
        public Instant now() {
            return Instant.EPOCH;
        }

        @Override
        public Random random() {
            return new Random(0);
        }

        @Override
        public <T> T kept(Class<T> kind, Object owner, Supplier<T> beginning) {
            return beginning.get();
        }
    };

    private ConstantArguments() {}

    /** {@return why a function would always fail, or null} */
    static @Nullable Problem fault(Function function, List<Expr> arguments) {
        if (function.traits().stability() != Stability.PURE || arguments.size() < 2) {
            return null;
        }
        Value[] values = new Value[arguments.size()];
        for (int i = 0; i < values.length; i++) {
            Value value = value(arguments.get(i), function.signature().parameter(i), i == 0);
            if (value == null) {
                return null;
            }
            values[i] = value;
        }
        try {
            if (function instanceof Function.Scalar scalar) {
                scalar.maker().make(List.of(values)).apply(values, NOTHING);
            } else if (function instanceof Function.Aggregate aggregate) {
                aggregate
                        .starter()
                        .start(List.of(values).subList(1, values.length).toArray(new Value[0]));
            }
        } catch (ProblemException e) {
            Problem problem = e.problem();
            return problem.code() == Code.OUT_OF_RANGE
                    ? Problem.error(Code.ARGUMENTS, problem.message())
                            .withValue(problem.value())
                            .withHelp(problem.help())
                    : null;
        } catch (IllegalArgumentException e) {
            // Reported for the constants alone.
            return null;
        }
        return null;
    }

    private static @Nullable Value value(Expr argument, Signature.Parameter parameter, boolean first) {
        if (argument instanceof Expr.Literal literal) {
            Value value = literal.value();
            return value.isMissing() ? null : taken(value, parameter.kind());
        }
        return first ? harmless(parameter.kind()) : null;
    }

    private static @Nullable Value taken(Value value, ParameterKind want) {
        try {
            return want.take(value);
        } catch (ProblemException e) {
            return null;
        }
    }

    /** {@return a value that a function takes without complaint, if it takes any, or null} */
    private static @Nullable Value harmless(ParameterKind want) {
        return switch (want) {
            case TEXT, MANY -> TextValue.EMPTY;
            case NUMBER, INTEGER -> NumberValue.of(1);
            default -> null;
        };
    }
}
