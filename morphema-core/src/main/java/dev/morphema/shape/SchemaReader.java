package dev.morphema.shape;

import dev.morphema.format.Input;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/**
 * Reads schemas. Implementations are immutable and safe for use by many threads; they are found as
 * {@link java.util.ServiceLoader} finds them. Nothing is fetched from a network.
 */
public interface SchemaReader {
    /**
     * {@return the shape of whole documents, or of each record where a format is a sequence of
     * them; empty if this reader does not know schemas of that form}
     *
     * @param path names the schema, perhaps with a fragment behind {@code #} that names a part
     * @param format the name of the format that the schema is for
     * @param files opens the schema, and the files that it names, by their paths
     * @throws IOException if the schema cannot be read
     * @throws dev.morphema.problem.ProblemException if it is not well-formed, or is no schema
     */
    Optional<SchemaShape> read(String path, String format, Files files) throws IOException;

    /**
     * {@return what the first of some readers says that knows the schema; empty if none does}
     *
     * @throws IOException if the schema cannot be read
     * @throws dev.morphema.problem.ProblemException if it is not well-formed, or is no schema
     */
    static Optional<SchemaShape> first(List<SchemaReader> readers, String path, String format, Files files)
            throws IOException {
        for (SchemaReader reader : readers) {
            Optional<SchemaShape> shape = reader.read(path, format, files);
            if (shape.isPresent()) {
                return shape;
            }
        }
        return Optional.empty();
    }

    /** Opens the files of a schema. */
    @FunctionalInterface
    interface Files {
        /** {@return a file; opening it may fail} */
        Input open(String path);
    }
}
