package dev.morphema.engine;

import dev.morphema.format.KeyedReader;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.List;
import java.util.Map;

/** Gives readers of the sources. */
public interface Readers {
    /** Told once, before anything is opened: the values of the mapping's parameters by name. */
    default void parameters(Map<String, Value> values) {
        // of no matter to inputs that do not ask
    }

    /**
     * {@return a reader of a source; the run closes it}
     *
     * @param path the fields that lead to the records, or empty for the records of the format
     * @param projection what is kept
     * @throws IOException if it cannot be opened
     */
    RecordReader open(int source, List<FieldName> path, Projection projection) throws IOException;

    /**
     * As {@link #open}, for a run that keeps no record while it asks for the next.
     */
    RecordReader openPassing(int source, List<FieldName> path, Projection projection) throws IOException;

    /**
     * {@return what finds records of a source by a key; the run closes it}
     *
     * @param projection what is kept
     * @throws IOException if it cannot be opened
     */
    default KeyedReader openKeyed(int source, Projection projection) throws IOException {
        throw new UnsupportedOperationException("nothing is asked for here");
    }

    /**
     * {@return whether the input of a source is so small that to read it once, as a whole, is
     * best}
     */
    boolean isSmall(int source);

    /** {@return what problems call the input of a source, or the first of many} */
    String nameOf(int source);

    /**
     * {@return some records of a source, or its document, with all that there is; none if that
     * would take long}
     */
    List<Value> examples(int source);
}
