package dev.morphema.value;

import dev.morphema.problem.InputLocation;
import org.jspecify.annotations.Nullable;

/**
 * Where a record stood in its input.
 *
 * @param input the name of the input, usually its file
 * @param record which record, counted from 1; 0 where records do not apply
 * @param line the line it begins on, counted from 1; 0 if it is not known
 */
public record Origin(String input, long record, long line) {
    /**
     * {@return the place, for a problem with one field of the record or, if null, with the record}
     */
    public InputLocation location(@Nullable String field) {
        return new InputLocation(input, record, line, 0, field, null);
    }
}
