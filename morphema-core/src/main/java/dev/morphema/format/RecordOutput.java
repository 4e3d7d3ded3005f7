package dev.morphema.format;

import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import java.io.IOException;

/**
 * Takes the records of a target that are not to become bytes, such as rows for a database. Each
 * opening is for one run.
 */
public interface RecordOutput {
    /** {@return what problems call it} */
    String name();

    /** {@return the name of the format whose targets it can be the output of} */
    String format();

    /**
     * {@return what takes the records of one run}
     *
     * @param document what is known of the target before the first record
     * @throws IOException if it cannot be reached
     */
    Transaction open(Document document) throws IOException;

    /** Takes the records of one run, all or none. Not thread-safe. */
    interface Transaction extends AutoCloseable {
        /** {@return what takes the records} */
        DocumentWriter writer();

        /**
         * Makes all that was written last. Called once, after the writer has finished and all
         * other outputs have been found good.
         *
         * @throws IOException if that fails; then nothing has changed
         */
        void commit() throws IOException;

        /** Undoes what was written, unless it was committed. Does not fail. */
        @Override
        void close();
    }
}
