package dev.morphema.format;

import dev.morphema.problem.RuleLocation;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A format that can be written. Implementations are immutable and safe for use by many threads. */
public interface TargetFormat {
    /** {@return its name in mappings} */
    String name();

    /** {@return the options it takes} */
    List<OptionSpec> options();

    /**
     * {@return what is wrong with some options together, as a sentence, or null}
     *
     * @param options of which each for itself is as {@link #options} says
     */
    default @Nullable String faultOf(Options options) {
        return null;
    }

    /** {@return what the format can hold} */
    Traits traits();

    /**
     * {@return whether what is written is what the source format of the same name reads}, so that
     * two documents can be compared by their values; if not, they are compared line by line
     */
    default boolean readsBack() {
        return true;
    }

    /**
     * {@return a document as it goes on behind one that is there already}, such as rows without a
     * header; null if documents of this format cannot be gone on with
     *
     * @param before the document that is there, which is not empty
     * @param document the one to be written behind it
     * @throws dev.morphema.problem.ProblemException if the new one does not fit behind the other
     * @throws IOException if that cannot be read
     */
    default @Nullable Document continued(Input before, Document document) throws IOException {
        return null;
    }

    /**
     * {@return a document into which another was put, all else as it was, its layout and comments
     * included; null if documents of this format are not put into others}
     *
     * @param before the document that is there
     * @param part the one that is put in, as {@link #open} writes it
     * @param place where, and what becomes of entries that are there already
     * @throws dev.morphema.problem.ProblemException if an entry is there that must stay, the path
     *     leads nowhere, or the document is not well-formed
     * @throws IOException if it cannot be read
     */
    default byte @Nullable [] inserted(Input before, byte[] part, Insertion place) throws IOException {
        return null;
    }

    /**
     * {@return whether several targets may share a document, of which each is a field}, as a
     * workbook has a sheet for each
     */
    default boolean joins() {
        return false;
    }

    /**
     * {@return a writer of one document}
     *
     * @param out where the bytes go; the caller closes it
     * @param document what is known before the first event
     * @throws IOException if writing fails
     */
    DocumentWriter open(OutputStream out, Document document) throws IOException;

    /**
     * What a format can hold.
     *
     * @param root what a document is
     * @param flat whether records hold scalars and nothing else
     * @param attributesFirst whether the attributes of a record must come before all else
     */
    record Traits(Root root, boolean flat, boolean attributesFirst) {}

    /** What a document may be. */
    enum Root {
        /** A record with just one field. */
        ONE_FIELD,
        /** Any value. */
        ANY,
        /** A list of records. */
        RECORDS
    }

    /**
     * What is known of a document before it is written.
     *
     * @param options as the mapping gave them
     * @param columns all fields of a flat format, in order; empty for others
     * @param prefixes the declared prefixes with their namespaces
     * @param declared where the mapping declares the format, or null
     */
    record Document(
            Options options,
            List<String> columns,
            Map<String, String> prefixes,
            @Nullable RuleLocation declared) {
        /** A document of no mapping. */
        public Document(Options options, List<String> columns, Map<String, String> prefixes) {
            this(options, columns, prefixes, null);
        }

        public Document {
            columns = List.copyOf(columns);
            prefixes = Map.copyOf(prefixes);
        }
    }

    /** A writer of one document. */
    interface DocumentWriter extends EventWriter {
        /**
         * Ends the document and hands all bytes to the stream.
         *
         * @throws IOException if writing fails
         */
        void finish() throws IOException;

        /**
         * Gives back what is held beside the stream; comes in place of {@link #finish} if the run
         * has failed, and may come after it.
         */
        default void abandon() {
            // nothing is held
        }

        /**
         * Remembers what has been written so far, instead of what was remembered before. Nothing
         * that comes after it leaves the writer until the next mark, or the end.
         *
         * @return whether this writer can go back; if not, nothing is remembered
         */
        default boolean mark() {
            return false;
        }

        /**
         * Goes back to the last mark: what was written since then was not. Only of a writer that
         * has one.
         */
        default void rewind() {
            throw new IllegalStateException("there is no mark");
        }
    }
}
