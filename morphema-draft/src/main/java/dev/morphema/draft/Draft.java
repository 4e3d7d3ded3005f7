package dev.morphema.draft;

import dev.morphema.FormattedMapping;
import dev.morphema.samples.Difference;
import java.nio.file.Path;
import java.util.List;

/** A mapping that was found out. Immutable. */
public final class Draft {
    private final FormattedMapping mapping;
    private final int found;
    private final int fields;
    private final boolean tried;
    private final List<Difference> differences;

    Draft(FormattedMapping mapping, int found, int fields, boolean tried, List<Difference> differences) {
        this.mapping = mapping;
        this.found = found;
        this.fields = fields;
        this.tried = tried;
        this.differences = List.copyOf(differences);
    }

    /**
     * {@return the mapping, laid out in the one style, with what is to be known of it in comments}
     */
    public String text() {
        return mapping.text();
    }

    /**
     * Puts the mapping into a new file: whole, or not at all.
     *
     * @throws dev.morphema.problem.ProblemException if there is such a file already, or it cannot
     *     be written
     */
    public void write(Path file) {
        mapping.writeNew(file);
    }

    /** {@return how many fields of the target have a rule} */
    public int found() {
        return found;
    }

    /** {@return how many fields the target has} */
    public int fields() {
        return fields;
    }

    /** {@return whether it was run on the samples, and compared with an expected output} */
    public boolean isTried() {
        return tried;
    }

    /** {@return where what it gives for the samples is not the expected output} */
    public List<Difference> differences() {
        return differences;
    }
}
