package dev.morphema;

import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.HashMap;
import java.util.Map;

/** What a run can be told beside its inputs and outputs. Immutable. */
public final class RunOptions {
    /** Everything at its default: all parameters have the values that the mapping gives them. */
    public static final RunOptions DEFAULT = new RunOptions(Map.of());

    private final Map<String, Value> params;

    private RunOptions(Map<String, Value> params) {
        this.params = params;
    }

    /** {@return these options and the value of a parameter, as a text that is converted to its type} */
    public RunOptions param(String name, String value) {
        Map<String, Value> more = new HashMap<>(params);
        more.put(name, TextValue.of(value));
        return new RunOptions(more);
    }

    Map<String, Value> params() {
        return params;
    }
}
