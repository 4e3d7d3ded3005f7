package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.DocumentWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * All outputs of one run. What was not committed is thrown away when this is closed. Not
 * thread-safe.
 */
public final class StagedOutputs implements AutoCloseable {
    private final Map<Integer, StagedOutput> byTarget = new LinkedHashMap<>();
    private final Map<Integer, DocumentWriter> writers = new HashMap<>();
    private final Set<Path> inputs;
    private final Set<Path> ofMapping;
    private boolean finished;

    /**
     * @param inputs the files that the run reads, each where it really is
     * @param ofMapping the files that the mapping was made of
     */
    public StagedOutputs(Set<Path> inputs, Set<Path> ofMapping) {
        this.inputs = inputs;
        this.ofMapping = ofMapping;
    }

    /** Adds the output of a target. */
    public void add(int target, StagedOutput output) {
        byTarget.put(target, output);
    }

    /** {@return whether a target has an output} */
    public boolean has(int target) {
        return byTarget.containsKey(target);
    }

    /** {@return where the bytes go of an output that has one document} */
    public OutputStream bytes(int target) throws IOException {
        return byTarget.get(target).bytes(null);
    }

    /**
     * {@return what takes a document of a target; it goes nowhere if the target has no output}
     *
     * @param name which of the documents of a target that has many, or null
     * @param format of the target
     * @param document what is known of it
     * @throws dev.morphema.problem.ProblemException if a document cannot have that name
     */
    public DocumentWriter writer(
            int target, Writers.@Nullable Document name, TargetFormat format, TargetFormat.Document document)
            throws IOException {
        StagedOutput output = byTarget.get(target);
        DocumentWriter writer = output == null
                ? format.open(OutputStream.nullOutputStream(), document)
                : output.writer(name, format, document);
        // A target writes one document after the other.
        writers.put(target, writer);
        return writer;
    }

    /**
     * Looks that no output takes the place of another one, or of what was read.
     *
     * @throws dev.morphema.problem.ProblemException if one does
     */
    public void checkPlaces() throws IOException {
        if (byTarget.values().stream().allMatch(output -> output.files().isEmpty())) {
            return;
        }
        OutputPlaces places = new OutputPlaces(inputs, ofMapping);
        for (StagedOutput output : byTarget.values()) {
            for (Path file : output.files()) {
                places.take(file);
            }
        }
    }

    /**
     * A file that waits for its place.
     *
     * @param target which target it is of
     * @param file where it is for now
     * @param place where it is to be
     */
    public record Waiting(int target, Path file, Path place) {}

    /** {@return all files, which are written to their ends}; none for what goes to streams, or into
     * documents that are there already. */
    public List<Waiting> waiting() throws IOException {
        finish();
        List<Waiting> waiting = new ArrayList<>();
        for (Map.Entry<Integer, StagedOutput> output : byTarget.entrySet()) {
            if (output.getValue().isPart()) {
                continue;
            }
            for (StagedOutput.Placed placed : output.getValue().placed()) {
                if (Files.isRegularFile(placed.staged())) {
                    waiting.add(new Waiting(output.getKey(), placed.staged(), placed.place()));
                }
            }
        }
        return waiting;
    }

    private void finish() throws IOException {
        if (!finished) {
            finished = true;
            for (StagedOutput output : byTarget.values()) {
                output.close();
            }
        }
    }

    /**
     * Puts all outputs into their places: files first, for whoever reads a stream may close it,
     * which must not keep a file from its place.
     *
     * @throws dev.morphema.problem.ProblemException if a place cannot be taken; then no file is
     *     changed
     */
    public void commit() throws IOException {
        finish();
        // The documents of a target that has many have got their names only now.
        checkPlaces();
        Commit.of(byTarget.values(), this::confirm);
        for (StagedOutput output : byTarget.values()) {
            output.deliver();
        }
    }

    private void confirm() throws IOException {
        for (StagedOutput output : byTarget.values()) {
            output.confirm();
        }
    }

    @Override
    public void close() {
        writers.values().forEach(DocumentWriter::abandon);
        byTarget.values().forEach(StagedOutput::discard);
    }
}
