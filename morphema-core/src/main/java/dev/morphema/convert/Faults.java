package dev.morphema.convert;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/** Makes the faults of conversions. */
public final class Faults {
    private Faults() {}

    /** {@return a fault without places, with the value it is about} */
    public static ProblemException fault(Code code, String message, @Nullable Value value, @Nullable String help) {
        return new ProblemException(Problem.error(code, message)
                .withValue(value == null ? null : shown(value))
                .withHelp(help));
    }

    private static @Nullable String shown(Value value) {
        return value.isScalar() && !value.isMissing() ? value.toString() : null;
    }
}
