package dev.morphema;

import dev.morphema.format.Insertion;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.RecordOutput;
import dev.morphema.output.StagedOutput;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * The outputs of a run, each for a target of the mapping. Targets without an output are not
 * written. An output appears as a whole after a run that succeeded, or not at all. Immutable.
 */
public final class Outputs {
    /** No outputs: the mapping runs, and what it would write is thrown away. */
    public static final Outputs NONE = new Outputs(Map.of());

    private final Map<String, StagedOutput.Opening> byTarget;

    private Outputs(Map<String, StagedOutput.Opening> byTarget) {
        this.byTarget = byTarget;
    }

    /** {@return one output: a file, which takes the place of one that stands there} */
    public static Outputs file(String target, Path file) {
        return NONE.andFile(target, file);
    }

    /** {@return one output: a stream, which is flushed; who opened it closes it} */
    public static Outputs stream(String target, OutputStream stream) {
        return NONE.andStream(target, stream);
    }

    /** {@return one output: a folder, for a target of many documents} */
    public static Outputs folder(String target, Path folder) {
        return NONE.andFolder(target, folder);
    }

    /** {@return one output: many documents, which are handed over in memory} */
    public static Outputs documents(String target, Documents taker) {
        return NONE.andDocuments(target, taker);
    }

    /** Takes the documents of a target that has many, after the run has succeeded. */
    @FunctionalInterface
    public interface Documents {
        /**
         * Takes a document.
         *
         * @param name as the mapping gave it, perhaps with folders before a {@code /}
         * @param document the taker's to keep
         * @throws IOException if the document cannot be handed on; the run fails
         */
        void take(String name, byte[] document) throws IOException;
    }

    /** {@return these outputs and a file} */
    public Outputs andFile(String target, Path file) {
        Objects.requireNonNull(file);
        return and(target, () -> StagedOutput.file(file));
    }

    /**
     * {@return these outputs and a file that goes on behind what is in it}. The file is CSV, JSON
     * Lines or fixed columns. A header is written once, and the columns must be the same. It is
     * made if it is not there.
     */
    public Outputs andAppended(String target, Path file) {
        Objects.requireNonNull(file);
        return and(target, () -> StagedOutput.appended(file, content(file)));
    }

    /**
     * {@return these outputs and a document that is put into another one, which is in a file}. That
     * is JSON, YAML or XML, as the target is, and stays as it is in all else; of the file as it was
     * a copy is kept beside it, whose name ends with {@code .bak}.
     *
     * @param path the names that lead to the place, from the outermost record, or from the root
     *     element, which is the first; in JSON and YAML the last may be a new one
     * @param existing what becomes of entries that are there already
     */
    public Outputs andMerged(String target, Path file, List<String> path, Insertion.Existing existing) {
        Objects.requireNonNull(file);
        Insertion insertion = new Insertion(path, existing);
        return and(target, () -> StagedOutput.merged(file, content(file), insertion));
    }

    /**
     * {@return these outputs and a file that several targets share}, such as a workbook (of the
     * module morphema-xlsx) with a sheet for each, of its name
     *
     * @param targets in the order of the sheets
     */
    public Outputs andShared(List<String> targets, Path file) {
        Objects.requireNonNull(file);
        StagedOutput.Joint joint = StagedOutput.joined(file, targets.size());
        Outputs all = this;
        for (String target : targets) {
            all = all.and(target, () -> joint.open(target));
        }
        return all;
    }

    /** {@return these outputs and a stream} */
    public Outputs andStream(String target, OutputStream stream) {
        Objects.requireNonNull(stream);
        return and(target, () -> StagedOutput.stream(stream));
    }

    /**
     * {@return these outputs and a folder, for a target of many documents}; it is made if it is not
     * there. Files of the same names are replaced, others stay.
     */
    public Outputs andFolder(String target, Path folder) {
        Objects.requireNonNull(folder);
        return and(target, () -> StagedOutput.folder(folder));
    }

    /** {@return these outputs and many documents, which are handed over in memory} */
    public Outputs andDocuments(String target, Documents taker) {
        Objects.requireNonNull(taker);
        return and(target, () -> StagedOutput.documents(taker::take));
    }

    /**
     * {@return these outputs and one that takes records instead of bytes}, such as a database of
     * the module morphema-jdbc
     */
    public Outputs andRecords(String target, RecordOutput output) {
        Objects.requireNonNull(output);
        return and(target, () -> StagedOutput.records(output));
    }

    /** What is in a file of our own, however well it is compressed. */
    private static FileInput content(Path file) {
        return new FileInput(file, Limits.DEFAULT.with(Limit.GROWTH, Limits.UNLIMITED));
    }

    /** {@return one output that is there already} */
    static Outputs staged(String target, StagedOutput output) {
        return NONE.and(target, () -> output);
    }

    private Outputs and(String target, StagedOutput.Opening opening) {
        Map<String, StagedOutput.Opening> more = new LinkedHashMap<>(byTarget);
        more.put(Objects.requireNonNull(target), opening);
        return new Outputs(more);
    }

    Map<String, StagedOutput.Opening> byTarget() {
        return byTarget;
    }
}
