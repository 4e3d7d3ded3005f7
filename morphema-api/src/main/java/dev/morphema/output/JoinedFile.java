package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A file of one document with a field for each of several targets, such as a workbook with a sheet
 * for each. What the targets write is kept until all are written. Not thread-safe.
 */
final class JoinedFile {
    private final StagedFile file;
    private final int targets;
    private final Map<String, Part> parts = new LinkedHashMap<>();
    private @Nullable DocumentWriter writer;
    private int closed;

    private JoinedFile(StagedFile file, int targets) {
        this.file = file;
        this.targets = targets;
    }

    /** Makes the parts of one run after the other. */
    static final class Opening {
        private final Path place;
        private final int targets;
        private @Nullable JoinedFile current;

        /** @param targets how many share the file */
        Opening(Path place, int targets) {
            this.place = place;
            this.targets = targets;
        }

        /** {@return the part of a target, in the file of the run at hand} */
        synchronized StagedOutput open(String target) throws IOException {
            JoinedFile joined = current;
            if (joined == null || joined.parts.containsKey(target)) {
                joined = new JoinedFile(StagedFile.of(Obstacles.followed(place)), targets);
                current = joined;
            }
            Part part = joined.new Part(joined.parts.isEmpty());
            joined.parts.put(target, part);
            return part;
        }
    }

    private DocumentWriter writer(TargetFormat format, Document document) throws IOException {
        if (!format.joins()) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Documents in " + format.name() + " do not share a file.")
                            .withHelp("targets of the format xlsx do, each in a sheet of its name"));
        }
        if (writer == null) {
            writer = format.open(file.bytes(null), document);
        }
        return writer;
    }

    private void abandon() {
        if (writer != null) {
            writer.abandon();
        }
    }

    private void close() throws IOException {
        closed++;
        DocumentWriter whole = writer;
        if (closed != targets || whole == null) {
            return;
        }
        whole.beginRecord();
        for (Map.Entry<String, Part> part : parts.entrySet()) {
            KeptEvents kept = part.getValue().kept;
            if (kept != null) {
                whole.field(FieldName.of(part.getKey()));
                kept.replay(whole);
            }
        }
        whole.endRecord();
        whole.finish();
        file.close();
    }

    /** What one target writes; the first of the file stands for all of it. */
    private final class Part extends StagedOutput {
        private final boolean first;
        private boolean isClosed;
        private @Nullable KeptEvents kept;

        Part(boolean first) {
            this.first = first;
        }

        @Override
        DocumentWriter writer(Writers.@Nullable Document name, TargetFormat format, Document document)
                throws IOException {
            kept = new KeptEvents(JoinedFile.this.writer(format, document));
            return kept;
        }

        @Override
        boolean isPart() {
            return true;
        }

        @Override
        OutputStream bytes(Writers.@Nullable Document document) {
            throw new IllegalStateException("takes no bytes");
        }

        @Override
        List<Path> files() {
            return first ? file.files() : List.of();
        }

        @Override
        void close() throws IOException {
            if (!isClosed) {
                isClosed = true;
                JoinedFile.this.close();
            }
        }

        @Override
        List<Placed> placed() {
            return first ? file.placed() : List.of();
        }

        @Override
        void discard() {
            if (kept != null) {
                kept.delete();
            }
            if (first) {
                abandon();
                file.discard();
            }
        }
    }
}
