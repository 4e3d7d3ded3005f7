package dev.morphema.formats;

import dev.morphema.formats.ByteSink.Constant;
import dev.morphema.value.Marks;

/**
 * What stands around the value of one field wherever that is written. Immutable.
 *
 * @param marks what is written otherwise within a text
 */
public record Around(
        Constant beforeText, Constant afterText, Constant beforeNumber, Constant afterNumber, Marks marks) {
    /** The same around texts and numbers. */
    public Around(String before, String after, Marks marks) {
        this(new Constant(before), new Constant(after), marks);
    }

    private Around(Constant before, Constant after, Marks marks) {
        this(before, after, before, after, marks);
    }
}
