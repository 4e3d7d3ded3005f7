package dev.morphema;

import dev.morphema.format.Input;
import dev.morphema.problem.Problem;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.util.List;

/**
 * Looks whether documents are as a schema says. Implementations are safe for use by many threads;
 * the module morphema-schemas has one.
 */
@FunctionalInterface
public interface DocumentCheck {
    /**
     * {@return what is wrong with a document, each with its place}
     *
     * @param document what is looked at
     * @param format the name of its format
     * @param schema the file of the schema, perhaps with a part of it behind {@code #}
     * @param files opens the schema and the files that it names
     * @throws IOException if the document cannot be read
     * @throws dev.morphema.problem.ProblemException if the schema cannot be used
     */
    List<Problem> check(Input document, String format, String schema, SchemaReader.Files files) throws IOException;
}
