package dev.morphema.function;

import dev.morphema.convert.Dates;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.time.temporal.ChronoUnit;

/** Functions of dates and times. */
final class TimeFunctions {
    private TimeFunctions() {}

    static void addTo(FunctionTable table) {
        table.scalar("inZone(time: datetime, zone: text): datetime", TimeFunctions::inZone);
        table.scalar("days(from: date, to: date): number", TimeFunctions::days);
    }

    private static Value inZone(Value[] a) {
        try {
            return Dates.inZone((DateTimeValue) a[0], Dates.zone(TextFunctions.text(a, 1)));
        } catch (IllegalArgumentException e) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, String.valueOf(e.getMessage()))
                    .withValue(TextFunctions.text(a, 1)));
        }
    }

    private static Value days(Value[] a) {
        return NumberValue.of(ChronoUnit.DAYS.between(((DateValue) a[0]).date(), ((DateValue) a[1]).date()));
    }
}
