package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Nothing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;

/** XML elements as values. */
final class Elements {
    private Elements() {}

    /** The own text of an element without child elements; what else is a record cannot be one value. */
    static Value text(RecordValue record) {
        if (!record.isElement()) {
            throw new ProblemException(Problem.error(Code.KIND, "This is a record where one value is wanted.")
                    .withHelp("step down to one of its fields"));
        }
        for (int i = 0; i < record.layout().size(); i++) {
            FieldName name = record.layout().name(i);
            if (!name.attribute() && !name.equals(FieldName.OWN_TEXT) && record.get(i) != Nothing.ABSENT) {
                throw new ProblemException(
                        Problem.error(Code.KIND, "This element has child elements, so it is not one value.")
                                .withHelp("step down to one of them"));
            }
        }
        Value text = record.get(FieldName.OWN_TEXT);
        return text == Nothing.ABSENT ? TextValue.EMPTY : text;
    }
}
