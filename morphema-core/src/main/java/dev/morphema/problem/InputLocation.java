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
 * @param text the line of the input or a part of it, or null where it is not known or not to be
 *     shown
 * @param textFrom the column in the line at which the text begins; 1 where it is the whole line
 */
public record InputLocation(
        String input,
        long record,
        long line,
        int column,
        @Nullable String field,
        @Nullable String text,
        int textFrom) {

    /** A place of which no line is shown, or a whole one. */
    public InputLocation(
            String input, long record, long line, int column, @Nullable String field, @Nullable String text) {
        this(input, record, line, column, field, text, 1);
    }

    /** {@return a place that is known by its line and column only} */
    public static InputLocation at(String input, long line, int column) {
        return new InputLocation(input, 0, line, column, null, null);
    }

    /**
     * {@return the same place with a part of its line}
     *
     * @param from the column in the line at which the part begins, counted from 1
     */
    public InputLocation withText(String part, int from) {
        return new InputLocation(input, record, line, column, field, part, from);
    }

    /**
     * {@return where in the text that is shown the place is, counted from 1; 0 if that is not
     * known}
     */
    public int shownColumn() {
        return column >= textFrom ? column - textFrom + 1 : 0;
    }

    /** {@return the same place with the field} */
    public InputLocation withField(String path) {
        return new InputLocation(input, record, line, column, path, text, textFrom);
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
