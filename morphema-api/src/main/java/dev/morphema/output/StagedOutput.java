package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.RecordOutput;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.DocumentWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** An output that waits until the run has succeeded. Not thread-safe. */
public abstract class StagedOutput {
    StagedOutput() {}

    /** Makes a staged output when a run begins. */
    @FunctionalInterface
    public interface Opening {
        /** {@return the output} */
        StagedOutput open() throws IOException;
    }

    /**
     * A file, or a whole folder, that waits.
     *
     * @param staged where it is for now
     * @param place where it is to be, links followed
     * @param staging the folder that it waits in
     * @param within the folder that it must not leave, or null
     */
    record Placed(
            Path staged,
            Path place,
            StagingFolder staging,
            @Nullable Path within) {}

    /** {@return whether there is any number of documents, each with a name} */
    public boolean isOfManyDocuments() {
        return false;
    }

    /** {@return whether what is written becomes a part of a document that is there already} */
    boolean isPart() {
        return false;
    }

    /**
     * {@return what takes the document}
     *
     * @param name which of many documents it is; null for an output of one document; another ends
     *     the one before
     * @param format of the target
     * @param document what is known of it
     * @throws dev.morphema.problem.ProblemException if a document cannot have that name
     */
    DocumentWriter writer(Writers.@Nullable Document name, TargetFormat format, TargetFormat.Document document)
            throws IOException {
        return format.open(bytes(name), document);
    }

    /**
     * {@return where the bytes of the document go for now}
     *
     * @param document null for an output of one document; another ends the one before
     * @throws dev.morphema.problem.ProblemException if a document cannot have that name
     */
    abstract OutputStream bytes(Writers.@Nullable Document document) throws IOException;

    /**
     * {@return the files, as far as they are known yet, that will be there, or that will take the
     * place of others}
     */
    List<Path> files() {
        return List.of();
    }

    /** Ends the writing; what stands at the output's place is still untouched. */
    abstract void close() throws IOException;

    /** {@return what is to be moved into its place}; none for what does not become a file */
    List<Placed> placed() throws IOException {
        return List.of();
    }

    /**
     * Makes last what does not become a file, and can still be refused. Comes before any file is
     * moved into its place.
     */
    void confirm() throws IOException {
        // files and streams are not refused
    }

    /** Hands over what does not become a file. */
    void deliver() throws IOException {
        // nothing, for one that becomes files
    }

    /** Throws away what was written so far, if it was not handed over or moved. */
    abstract void discard();

    /** {@return a file, which takes the place of one that stands there} */
    public static StagedOutput file(Path file) throws IOException {
        Path place = Obstacles.followed(file);
        // A pipe or device, such as /dev/null, cannot be replaced; it is written like a stream.
        return Files.exists(place) && !Files.isRegularFile(place) && !Files.isDirectory(place)
                ? new StagedStream(Files.newOutputStream(place), true)
                : StagedFile.of(place);
    }

    /**
     * {@return a file that goes on behind what is in it; it is made if it is not there}
     *
     * @param content what is in it so far
     */
    public static StagedOutput appended(Path file, Input content) throws IOException {
        return AppendedFile.of(Obstacles.followed(file), content);
    }

    /**
     * {@return what is put into the document of a file that is there}
     *
     * @param content what is in it
     */
    public static StagedOutput merged(Path file, Input content, Insertion insertion) throws IOException {
        return MergedFile.of(Obstacles.followed(file), content, insertion);
    }

    /** {@return what makes the outputs of several targets that share a file, by their names} */
    public static Joint joined(Path file, int targets) {
        return new JoinedFile.Opening(file, targets)::open;
    }

    /** Makes the output of one of several targets when a run begins. */
    @FunctionalInterface
    public interface Joint {
        /** {@return the output of a target} */
        StagedOutput open(String target) throws IOException;
    }

    /** {@return a folder of documents; it is made if it is not there} */
    public static StagedOutput folder(Path folder) throws IOException {
        return StagedFolder.of(Obstacles.followed(folder));
    }

    /** {@return a stream, which is flushed but not closed} */
    public static StagedOutput stream(OutputStream stream) {
        return new StagedStream(stream, false);
    }

    /** {@return what takes records instead of bytes} */
    public static StagedOutput records(RecordOutput output) {
        return new StagedRecords(output);
    }

    /** {@return documents in memory} */
    public static StagedOutput documents(StagedDocuments.Taker taker) {
        return new StagedDocuments(taker);
    }
}
