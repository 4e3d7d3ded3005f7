package dev.morphema.convert;

import dev.morphema.problem.Code;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;

/** Reads booleans. */
public final class Booleans {
    private Booleans() {}

    /**
     * {@return a value as a boolean}
     *
     * @param yes the text that means true
     * @param no the text that means false
     * @throws dev.morphema.problem.ProblemException if it is neither
     */
    public static BooleanValue read(Value value, String yes, String no) {
        if (value instanceof BooleanValue truth) {
            return truth;
        }
        if (value.isScalar()) {
            String text = value instanceof TextValue t ? WhiteSpace.trim(t.text()) : value.toString();
            if (text.equals(yes)) {
                return BooleanValue.TRUE;
            }
            if (text.equals(no)) {
                return BooleanValue.FALSE;
            }
        }
        throw Faults.fault(
                Code.NOT_A_BOOLEAN,
                "This is neither " + yes + " nor " + no + ".",
                value,
                "other words for true and false: boolean('Y', 'N')");
    }
}
