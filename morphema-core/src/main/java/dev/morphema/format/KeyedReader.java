package dev.morphema.format;

import dev.morphema.value.Value;
import java.io.IOException;
import java.util.List;

/**
 * Finds records of an input by a key, instead of reading all of them. Not thread-safe.
 */
public interface KeyedReader extends AutoCloseable {
    /**
     * {@return the records of a key, each for good}
     *
     * @param key a scalar for each field by which the format is asked, none of them absent or null
     * @throws dev.morphema.problem.ProblemException if the input cannot be asked for this key
     * @throws IOException if reading fails
     */
    List<Value> find(List<Value> key) throws IOException;

    /** Gives back what was held. */
    @Override
    void close() throws IOException;
}
