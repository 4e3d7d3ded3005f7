package dev.morphema.function;

import static dev.morphema.function.Trait.ASKS_PRESENCE;
import static dev.morphema.function.Trait.FORM_OF_FIRST;
import static dev.morphema.function.Trait.GIVES_NOTHING;
import static dev.morphema.function.Trait.TAKES_MISSING;
import static dev.morphema.function.Trait.UNFINISHED;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;

/** Functions that ask what kind of nothing a value is, or end the work. */
final class ValueFunctions implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.scalar("blank(x: any): boolean", a -> BooleanValue.of(isBlank(a[0])), TAKES_MISSING, ASKS_PRESENCE);
        functions.scalar(
                "filled(x: any): any",
                a -> isBlank(a[0]) ? Missing.ABSENT : a[0],
                TAKES_MISSING,
                ASKS_PRESENCE,
                FORM_OF_FIRST);
        functions.scalar("fail(message: any): any", ValueFunctions::fail, TAKES_MISSING, ASKS_PRESENCE, GIVES_NOTHING);
        functions.scalar(
                "todo(message: any): any",
                a -> Missing.ABSENT,
                TAKES_MISSING,
                ASKS_PRESENCE,
                GIVES_NOTHING,
                UNFINISHED);
    }

    /**
     * {@return whether a value is absent, null or a text, also of an element, of nothing but white
     * space}
     */
    static boolean isBlank(Value value) {
        return value.isMissing()
                || value instanceof TextValue text && WhiteSpace.isBlank(text.text())
                || value instanceof RecordValue record && Elements.isBlank(record);
    }

    /**
     * The message of the author may hold data, so it is the value of the problem, not its message.
     */
    private static Value fail(Value[] a) {
        Value message = a[0].isMissing() ? TextValue.EMPTY : ParameterKind.TEXT.take(a[0]);
        throw new ProblemException(
                Problem.error(Code.FAILED, "The mapping gives up here.").withValue(message.toString()));
    }
}
