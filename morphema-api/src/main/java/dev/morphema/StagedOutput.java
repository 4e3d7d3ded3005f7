package dev.morphema;

import dev.morphema.engine.Run;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import org.jspecify.annotations.Nullable;

/**
 * An output that waits until the run has succeeded: a temporary file beside the one it will become, or a spool for a
 * stream. Not thread-safe.
 */
abstract class StagedOutput {
    /** Makes a staged output when a run begins. */
    @FunctionalInterface
    interface Opening {
        StagedOutput open() throws IOException;
    }

    /** {@return whether there is any number of documents, each with a name} */
    boolean isOfManyDocuments() {
        return false;
    }

    /**
     * {@return where the bytes of the document go for now}
     *
     * @param document null for an output of one document; another ends the one before
     * @throws dev.morphema.problem.ProblemException if a document cannot have that name
     */
    abstract OutputStream bytes(Run.@Nullable Document document) throws IOException;

    /** {@return the files, as far as they are known yet, that will be there, or that will take the place of others} */
    List<Path> files() {
        return List.of();
    }

    /** Ends the writing; what stands at the output's place is still untouched. */
    abstract void close() throws IOException;

    /** Puts the output into its place. */
    abstract void commit() throws IOException;

    /** Throws away what was written so far. */
    abstract void discard();

    static StagedOutput file(Path file) throws IOException {
        // A link is followed: the file behind it is replaced, not the link.
        Path place = Files.exists(file) ? file.toRealPath() : file.toAbsolutePath();
        if (Files.isDirectory(place)) {
            throw new ProblemException(Problem.error(Code.NOT_WRITTEN, file + " is a folder, an output is a file."));
        }
        Path folder = place.getParent();
        if (folder == null) {
            throw new ProblemException(Problem.error(Code.NOT_WRITTEN, file + " is no name of a file."));
        }
        MadeFolders made = MadeFolders.to(folder);
        Leftovers.remove(folder);
        if (Files.exists(place) && !Files.isRegularFile(place)) {
            // A pipe or device, such as /dev/null, cannot be replaced; it is written like a stream.
            return new Replayed(Files.newOutputStream(place), true);
        }
        return new Moved(temporary(place), place, made);
    }

    /** Puts a file in the place of another, if there is one, all at once where the file system can. */
    static void replace(Path temporary, Path place) throws IOException {
        try {
            Files.move(temporary, place, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(temporary, place, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** {@return a name beside a place for what is not finished; no secret, only most unlikely to be there} */
    static Path temporary(Path place) {
        String number = Long.toHexString(ThreadLocalRandom.current().nextLong());
        return place.resolveSibling("." + place.getFileName() + "." + number + Leftovers.SUFFIX);
    }

    static StagedOutput stream(OutputStream stream) {
        return new Replayed(stream, false);
    }

    /** A temporary file that is moved into its place. */
    private static final class Moved extends StagedOutput {
        private final OutputStream bytes;
        private final Path temporary;
        private final Path place;
        private final MadeFolders made;

        Moved(Path temporary, Path place, MadeFolders made) throws IOException {
            FileChannel channel = FileChannel.open(temporary, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
            // So that no other run takes it for a leftover; the lock goes with the channel.
            Leftovers.lock(channel);
            this.bytes = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16);
            this.temporary = temporary;
            this.place = place;
            this.made = made;
        }

        @Override
        OutputStream bytes(Run.@Nullable Document document) {
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
        void commit() throws IOException {
            replace(temporary, place);
        }

        @Override
        void discard() {
            try {
                close();
            } catch (IOException e) {
                // what was not written is of no use any more
            }
            try {
                Files.deleteIfExists(temporary);
                made.remove();
            } catch (IOException e) {
                // the failure that led here is the one to be told
            }
        }
    }

    /** A spool that is copied to a stream in the end. */
    private static final class Replayed extends StagedOutput {
        private final Spool spool = new Spool();
        private final OutputStream stream;
        private final boolean ours;

        Replayed(OutputStream stream, boolean ours) {
            this.stream = stream;
            this.ours = ours;
        }

        @Override
        OutputStream bytes(Run.@Nullable Document document) {
            return spool;
        }

        @Override
        void close() throws IOException {
            spool.close();
        }

        @Override
        void commit() throws IOException {
            try {
                spool.copyTo(stream);
                stream.flush();
            } finally {
                closeOurs();
            }
        }

        @Override
        void discard() {
            spool.delete();
            try {
                closeOurs();
            } catch (IOException e) {
                // the failure that led here is the one to be told
            }
        }

        private void closeOurs() throws IOException {
            if (ours) {
                stream.close();
            }
        }
    }
}
