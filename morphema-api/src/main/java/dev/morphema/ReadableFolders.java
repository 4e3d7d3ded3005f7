package dev.morphema;

import dev.morphema.output.RealPlace;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * The folders that a mapping may read files of: its own, and those that whoever loads it allows.
 * What counts is where a file really is, links followed. Immutable.
 */
final class ReadableFolders {
    /** A longer text is no mapping that anybody has written. */
    private static final int MOST_OF_MAPPING = 16 << 20;

    private static final long MOST_OF_TABLE = 512L << 20;

    private final List<Path> folders;

    private ReadableFolders(List<Path> folders) {
        this.folders = List.copyOf(folders);
    }

    /** {@return the folders for a mapping in one of them} */
    static ReadableFolders of(Path own, List<Path> allowed) {
        List<Path> folders = new ArrayList<>(allowed);
        folders.add(own);
        return new ReadableFolders(folders);
    }

    /**
     * Looks whether a mapping may read a table or sample.
     *
     * @throws ProblemException if not
     * @throws IOException if it is not there
     */
    void check(Path file) throws IOException {
        checkPlace(file);
        if (Files.size(file) > MOST_OF_TABLE) {
            throw new ProblemException(
                    Problem.error(Code.NOT_ALLOWED, "A file of more than " + (MOST_OF_TABLE >> 20) + " MB is no table.")
                            .withValue(file.toString())
                            .withHelp("read it as a source, and fill the table from that"));
        }
    }

    /**
     * {@return the text of a mapping that another one uses}
     *
     * @throws ProblemException if it may not be read
     * @throws IOException if it cannot be read
     */
    String mapping(Path file) throws IOException {
        checkPlace(file);
        return text(file);
    }

    /**
     * {@return the text of a mapping that somebody has named himself}, which may also come from a
     * pipe
     *
     * @throws ProblemException if it is too long
     * @throws IOException if it cannot be read
     */
    static String text(Path file) throws IOException {
        byte[] bytes;
        try (InputStream in = Files.newInputStream(file)) {
            bytes = in.readNBytes(MOST_OF_MAPPING + 1);
        }
        if (bytes.length > MOST_OF_MAPPING) {
            throw new ProblemException(
                    Problem.error(Code.LIMIT, "A text of more than " + (MOST_OF_MAPPING >> 20) + " MB is no mapping.")
                            .withValue(file.toString()));
        }
        return StandardCharsets.UTF_8
                .newDecoder()
                .decode(ByteBuffer.wrap(bytes))
                .toString();
    }

    /** Looks whether a mapping may know of a file, also of one that is not there. */
    void checkPlace(Path file) throws IOException {
        checkWithin(file);
        if (Files.exists(file) && !Files.isRegularFile(file)) {
            throw new ProblemException(
                    Problem.error(Code.NOT_ALLOWED, "A mapping may read only files; this is a folder, pipe or device.")
                            .withValue(file.toString()));
        }
    }

    /** Looks whether a mapping may know what is at a place. */
    void checkWithin(Path file) throws IOException {
        if (!isWithin(RealPlace.of(file))) {
            throw new ProblemException(
                    Problem.error(
                                    Code.NOT_ALLOWED,
                                    "A mapping may read only what is in its own folder or below, and this file is not.")
                            .withValue(file.toString())
                            .withHelp(
                                    "whoever runs it can allow more: --allow-read FOLDER, in Java Morphema.builder().allowRead(folder)"));
        }
    }

    private boolean isWithin(Path real) throws IOException {
        for (Path folder : folders) {
            if (real.startsWith(folder.toRealPath())) {
                return true;
            }
        }
        return false;
    }
}
