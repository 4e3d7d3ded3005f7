package dev.morphema.format;

import dev.morphema.value.FieldName;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A format that can be read. Implementations are immutable and safe for use by many threads. */
public interface SourceFormat {
    /** {@return its name in mappings} */
    String name();

    /** {@return the options it takes, beside those that all sources take} */
    List<OptionSpec> options();

    /**
     * {@return what is wrong with some options together, as a sentence, or null}
     *
     * @param options of which each for itself is as {@link #options} says
     */
    default @Nullable String faultOf(Options options) {
        return null;
    }

    /**
     * {@return how the names of files end that are surely of this format}, such as {@code .yaml};
     * none where the bytes tell better
     */
    default List<String> endings() {
        return List.of();
    }

    /**
     * {@return the parameters of the mapping that some options name}, whose values {@link
     * Options#parameters} has when an input is opened
     */
    default Set<String> parameters(Options options) {
        return Set.of();
    }

    /**
     * {@return the fields by which records are asked for, when somebody looks one up, instead of
     * being read}; none for inputs that are read
     */
    default List<String> askedBy(Options options) {
        return List.of();
    }

    /**
     * {@return what finds records by the fields of {@link #askedBy}}
     *
     * @param input what is asked
     * @param projection what the mapping uses of each record
     * @param options as the mapping gave them
     * @throws IOException if the input cannot be opened
     */
    default KeyedReader openKeyed(Input input, Projection projection, Options options) throws IOException {
        throw new UnsupportedOperationException("records of " + name() + " are not asked for");
    }

    /** {@return what is known of every input of this format} */
    Traits traits();

    /**
     * {@return a reader, which closes the input's stream when it is closed}
     *
     * @param input what is read
     * @param projection what the mapping uses of each record
     * @param options as the mapping gave them
     * @throws IOException if the input cannot be opened
     */
    RecordReader open(Input input, Projection projection, Options options) throws IOException;

    /**
     * {@return a reader of the values at a path, one after the other}, which closes the input's
     * stream when it is closed. Only for formats whose traits say that they have paths.
     *
     * @param input what is read
     * @param path the fields that lead from the whole input down to the values; a name without
     *     namespace stands for any
     * @param projection what the mapping uses of the whole input
     * @param options as the mapping gave them
     * @throws IOException if the input cannot be opened
     */
    default RecordReader openAt(Input input, List<FieldName> path, Projection projection, Options options)
            throws IOException {
        throw new UnsupportedOperationException("records of " + name() + " have no paths");
    }

    /**
     * What is known of every input of a format.
     *
     * @param flat whether records hold texts and nothing else
     * @param sequence whether an input is always a sequence of records
     * @param paths whether the values at a path can be read one at a time
     */
    record Traits(boolean flat, boolean sequence, boolean paths) {}
}
