package dev.morphema.output;

import dev.morphema.engine.Writers;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A file that waits in a hidden folder beside its place. */
final class StagedFile extends StagedOutput {
    private final Path place;
    private final StagingFolder staging;
    private final Path staged;
    private final OutputStream bytes;

    private StagedFile(Path place, StagingFolder staging) throws IOException {
        this.place = place;
        this.staging = staging;
        this.staged = staging.resolve("file");
        this.bytes = DurableFile.of(staged, place);
    }

    /** @param place links followed */
    static StagedFile of(Path place) throws IOException {
        Path folder = place.getParent();
        if (folder == null) {
            throw Obstacles.refused("A folder stands where an output is to be, and an output is a file.", place);
        }
        // Looked for now too, so that nobody waits for a run whose output cannot be written.
        new Obstacles().check(place, null);
        StagingFolder staging = StagingFolder.in(folder);
        try {
            return new StagedFile(place, staging);
        } catch (IOException e) {
            staging.delete();
            throw e;
        }
    }

    @Override
    OutputStream bytes(Writers.@Nullable Document document) {
        return bytes;
    }

    @Override
    List<Path> files() {
        return List.of(place);
    }

    @Override
    void close() throws IOException {
        bytes.close();
    }

    @Override
    List<Placed> placed() {
        return List.of(new Placed(staged, place, staging, null));
    }

    @Override
    void discard() {
        try {
            close();
        } catch (IOException e) {
            // what was not written is of no use any more
        }
        staging.delete();
    }
}
