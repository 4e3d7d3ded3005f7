package dev.morphema.function;

import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.ListValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Functions of numbers, and the conversions that bear the names of types. */
final class NumberFunctions implements FunctionTable.Family {
    private static final int MOST_DIGITS = 1_000;
    private static final BigDecimal LARGEST = BigDecimal.valueOf(MOST_DIGITS);
    private static final int MOST_ITEMS = 1_000_000;

    private static final Map<String, RoundingMode> MODES = Map.of(
            "half up", RoundingMode.HALF_UP,
            "half even", RoundingMode.HALF_EVEN,
            "half down", RoundingMode.HALF_DOWN,
            "up", RoundingMode.UP,
            "down", RoundingMode.DOWN,
            "ceiling", RoundingMode.CEILING,
            "floor", RoundingMode.FLOOR);

    @Override
    public void addTo(FunctionSet functions) {
        functions.made("number(x: any, decimal?: text, grouping?: text): number", type("number"));
        functions.made("integer(x: any): number", type("integer"));
        functions.made("boolean(x: any, yes?: text, no?: text): boolean", type("boolean"));
        functions.scalar("text(x: any): text", a -> Elements.allText(a[0]));
        functions.made("date(x: any, pattern?: text): date", type("date"));
        functions.made("time(x: any, pattern?: text): time", type("time"));
        functions.made("datetime(x: any, pattern?: text, zone?: text): datetime", type("datetime"));
        functions.scalar("round(x: number, digits?: integer, mode?: text): number", NumberFunctions::round);
        functions.made("floor(x: any, step?: text): any", TimeFunctions::floor);
        functions.scalar("ceiling(x: number): number", a -> ((NumberValue) a[0]).rounded(0, RoundingMode.CEILING));
        functions.scalar(
                "abs(x: number): number",
                a -> NumberValue.of(((NumberValue) a[0]).decimal().abs()));
        functions.scalar("power(x: number, exponent: integer): number", NumberFunctions::power);
        functions.scalar("range(from: integer, to: integer): list", NumberFunctions::range);
    }

    /**
     * The conversion to a type, as a function: what stands in a type's parentheses follows the
     * value here.
     */
    private static Function.Maker type(String name) {
        return constants -> {
            List<String> arguments = new ArrayList<>();
            for (Value constant : constants.subList(1, constants.size())) {
                if (!(constant instanceof TextValue text)) {
                    return (a, run) -> convert(name, a);
                }
                arguments.add(text.text());
            }
            Converter converter = TypeConverters.converter(name, arguments);
            return (a, run) -> converter.convert(ParameterKind.scalar(a[0]));
        };
    }

    private static Value convert(String name, Value[] a) {
        List<String> arguments = new ArrayList<>();
        for (int i = 1; i < a.length; i++) {
            arguments.add(TextFunctions.text(a, i));
        }
        try {
            return TypeConverters.converter(name, arguments).convert(ParameterKind.scalar(a[0]));
        } catch (IllegalArgumentException e) {
            throw new ProblemException(Problem.error(Code.NOT_CONVERTIBLE, String.valueOf(e.getMessage())));
        }
    }

    private static Value power(Value[] a) {
        BigDecimal exponent = ((NumberValue) a[1]).decimal();
        if (exponent.abs().compareTo(LARGEST) > 0) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "The exponent is beyond " + MOST_DIGITS + ".")
                    .withValue(exponent.toPlainString()));
        }
        NumberValue base = (NumberValue) a[0];
        int times = Math.abs(exponent.intValueExact());
        try {
            NumberValue power = NumberValue.of(base.decimal().pow(times));
            return exponent.signum() < 0 ? NumberValue.of(1).dividedBy(power) : power;
        } catch (ArithmeticException e) {
            throw new ProblemException(Problem.error(
                    base.sign() == 0 ? Code.DIVISION_BY_ZERO : Code.OUT_OF_RANGE,
                    base.sign() == 0
                            ? "Zero has no power with a negative exponent."
                            : "The result has more digits than a number can have."));
        }
    }

    /** All whole numbers between two, both included; none if the first is the larger. */
    private static Value range(Value[] a) {
        BigDecimal from = ((NumberValue) a[0]).decimal();
        BigDecimal to = ((NumberValue) a[1]).decimal();
        if (to.subtract(from).compareTo(BigDecimal.valueOf(MOST_ITEMS)) >= 0) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "A range has at most 1,000,000 numbers."));
        }
        List<Value> numbers = new ArrayList<>();
        for (BigDecimal n = from; n.compareTo(to) <= 0; n = n.add(BigDecimal.ONE)) {
            numbers.add(NumberValue.of(n));
        }
        return ListValue.of(numbers);
    }

    private static Value round(Value[] a) {
        NumberValue number = (NumberValue) a[0];
        BigDecimal digits = a.length > 1 ? ((NumberValue) a[1]).decimal() : BigDecimal.ZERO;
        if (digits.signum() < 0 || digits.compareTo(LARGEST) > 0) {
            throw new ProblemException(Problem.error(
                            Code.OUT_OF_RANGE,
                            "A number is rounded to 0 to " + MOST_DIGITS + " digits after the point.")
                    .withValue(digits.toPlainString()));
        }
        RoundingMode mode = RoundingMode.HALF_UP;
        if (a.length > 2) {
            mode = MODES.get(TextFunctions.text(a, 2).toLowerCase(Locale.ROOT));
            if (mode == null) {
                throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "There is no rounding mode of this name.")
                        .withValue(TextFunctions.text(a, 2))
                        .withHelp("there is "
                                + String.join(
                                        ", ", MODES.keySet().stream().sorted().toList())));
            }
        }
        return number.rounded(digits.intValue(), mode);
    }
}
