package dev.morphema.formats;

import dev.morphema.formats.ByteSink.Constant;
import dev.morphema.value.Marks;

/**
 * What stands before and after the value of one field wherever that is written. Immutable.
 *
 * @param marks what is written otherwise within a text
 */
public record Affix(Constant beforeText, Constant afterText, Constant beforeNumber, Constant afterNumber, Marks marks) {
    /** The same around texts and numbers. */
    public Affix(String before, String after, Marks marks) {
        this(new Constant(before), new Constant(after), marks);
    }

    private Affix(Constant before, Constant after, Marks marks) {
        this(before, after, before, after, marks);
    }
}
