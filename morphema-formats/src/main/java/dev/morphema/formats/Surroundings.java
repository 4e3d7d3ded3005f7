package dev.morphema.formats;

import dev.morphema.format.FieldGroup;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.function.Function;

/**
 * What stands around the values of the fields of groups, made once for each group and each depth at which it is written. Not
 * thread-safe.
 */
public final class Surroundings {
    private static final Around[] NONE = {};

    private final Function<FieldName, Around> making;
    private final Map<FieldGroup, Known> known = new IdentityHashMap<>();

    /** What was made last for a group. */
    private record Known(int depth, Around[] around) {}

    /** @param making makes what stands around one field at the depth at hand; may refuse the name */
    public Surroundings(Function<FieldName, Around> making) {
        this.making = making;
    }

    /** {@return what stands around each field of a group; empty if one of the names is refused} */
    public Around[] of(FieldGroup group, int depth) {
        Known last = known.get(group);
        if (last == null || last.depth() != depth) {
            last = new Known(depth, made(group));
            known.put(group, last);
        }
        return last.around();
    }

    private Around[] made(FieldGroup group) {
        try {
            return group.names().stream().map(making).toArray(Around[]::new);
        } catch (ProblemException e) {
            // It will be refused again when the field is written by itself, with its place.
            return NONE;
        }
    }
}
