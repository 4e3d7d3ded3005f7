package dev.morphema.problem;

import org.jspecify.annotations.Nullable;

/**
 * A place in an input.
 *
 * @param input the name of the input, usually its file
 * @param record which record of the input, counted from 1; 0 where records do not apply
 * @param line counted from 1; 0 if it is not known
 * @param column counted from 1; 0 if it is not known
 * @param field the field within the record, or null
 * @param text the line of the input, or null where it is not known or not to be shown
 */
public record InputLocation(
        String input,
        long record,
        long line,
        int column,
        @Nullable String field,
        @Nullable String text) {

    /** {@return a place that is known by its line and column only} */
    public static InputLocation at(String input, long line, int column) {
        return new InputLocation(input, 0, line, column, null, null);
    }

    /** {@return the same place with the text of its line} */
    public InputLocation withText(@Nullable String lineText) {
        return new InputLocation(input, record, line, column, field, lineText);
    }

    @Override
    public String toString() {
        StringBuilder out = new StringBuilder(input);
        if (line > 0) {
            out.append(':').append(line);
            if (column > 0) {
                out.append(':').append(column);
            }
        }
        if (record > 0) {
            out.append(", record ").append(record);
        }
        if (field != null) {
            out.append(", field ").append(field);
        }
        return out.toString();
    }
}
