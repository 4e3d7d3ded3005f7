package dev.morphema.function;

import dev.morphema.convert.DatePattern;
import dev.morphema.convert.Dates;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The function {@code format}: numbers by a number pattern, dates and times by a date pattern. */
final class Formatting implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.made("format(x: any, pattern: text, decimal?: text, grouping?: text): text", Formatting::make);
    }

    /** What a pattern does to a value; which kind of pattern it is, its letters tell. */
    private interface Printer {
        String print(Value value, Value[] arguments);
    }

    private static Function.Body make(List<@Nullable Value> constants) {
        if (constants.get(1) instanceof TextValue pattern) {
            Printer printer = printer(pattern.text());
            return (a, run) -> TextValue.of(printer.print(ParameterKind.scalar(a[0]), a));
        }
        return (a, run) -> {
            try {
                return TextValue.of(printer(TextFunctions.text(a, 1)).print(ParameterKind.scalar(a[0]), a));
            } catch (IllegalArgumentException e) {
                throw new ProblemException(Problem.error(Code.NOT_CONVERTIBLE, String.valueOf(e.getMessage()))
                        .withValue(TextFunctions.text(a, 1)));
            }
        };
    }

    private static Printer printer(String pattern) {
        switch (pattern) {
            case "iso":
                return (value, a) -> ParameterKind.MOMENT.take(value).toString();
            case "epoch":
                return (value, a) -> Dates.toEpoch(datetime(value), false).toString();
            case "epoch ms":
                return (value, a) -> Dates.toEpoch(datetime(value), true).toString();
            default:
                break;
        }
        if (NumberPattern.looksLike(pattern)) {
            NumberPattern number = new NumberPattern(pattern);
            return (value, a) -> number.print((NumberValue) ParameterKind.NUMBER.take(value), decimal(a), grouping(a));
        }
        DatePattern date = new DatePattern(pattern);
        return (value, a) -> Dates.print(ParameterKind.MOMENT.take(value), date);
    }

    private static DateTimeValue datetime(Value value) {
        return (DateTimeValue) ParameterKind.DATETIME.take(ParameterKind.MOMENT.take(value));
    }

    private static String decimal(Value[] a) {
        return a.length > 2 ? TextFunctions.text(a, 2) : ".";
    }

    /**
     * Where the decimal mark is a comma, thousands are marked by points unless something else is
     * asked for.
     */
    private static String grouping(Value[] a) {
        if (a.length > 3) {
            return TextFunctions.text(a, 3);
        }
        return decimal(a).equals(",") ? "." : ",";
    }
}
