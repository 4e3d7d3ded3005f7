package dev.morphema.output;

import java.io.IOException;
import java.io.OutputStream;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;

/**
 * What a commit is about to do, written beside what is staged before the first move. While it is
 * there, all moves are to be made, or to be undone; so a commit that was cut ends one way or the
 * other. A text in UTF-8: a line for each folder that is made and for each move, paths relative to
 * the folder of the outputs where they are below it.
 *
 * @param at where it is written
 * @param made folders that the commit makes, the outermost first
 */
record Journal(StagingFolder at, List<Path> made, List<Move> moves) {
    private static final String DOING = "journal";
    private static final String UNDOING = "journal-undo";
    private static final String BEGUN = "journal-begun";

    /** In the other folders of a commit: where its journal is. */
    private static final String ELSEWHERE = "journal-elsewhere";

    private static final String TITLE = "morphema commit 1";
    private static final String FOLDER = "folder";
    private static final String MOVE = "move";
    private static final int PARTS_OF_MOVE = 5;

    /** Has the other folders of a commit say where the journal will be. */
    void announce(List<StagingFolder> others) throws IOException {
        for (StagingFolder other : others) {
            write(other.resolve(ELSEWHERE), encoded(at.path().toAbsolutePath().toString()));
        }
    }

    /** Decides that all is done. */
    void begin() throws IOException {
        StringBuilder text = new StringBuilder(TITLE).append('\n');
        for (Path folder : made) {
            text.append(FOLDER + " ").append(relative(folder)).append('\n');
        }
        for (Move move : moves) {
            text.append(MOVE + " ")
                    .append(relative(move.staged()))
                    .append(' ')
                    .append(relative(move.place()))
                    .append(' ')
                    .append(relative(move.old()))
                    .append(' ')
                    .append(move.found())
                    .append('\n');
        }
        write(at.resolve(BEGUN), text.toString());
        Files.move(at.resolve(BEGUN), at.resolve(DOING), StandardCopyOption.ATOMIC_MOVE);
        DurableFile.flushNames(at.path());
    }

    /** Does what is not done yet. */
    void finish() throws IOException {
        for (Path folder : made) {
            Files.createDirectories(folder);
        }
        for (Move move : moves) {
            move.finish();
        }
        flushNames();
        end();
    }

    /** Decides that nothing is done, and undoes what was. */
    void undo() throws IOException {
        if (Files.exists(at.resolve(DOING))) {
            Files.move(at.resolve(DOING), at.resolve(UNDOING), StandardCopyOption.ATOMIC_MOVE);
        }
        for (int i = moves.size() - 1; i >= 0; i--) {
            moves.get(i).undo();
        }
        for (int i = made.size() - 1; i >= 0; i--) {
            Files.deleteIfExists(made.get(i));
        }
        flushNames();
        end();
    }

    private void flushNames() throws IOException {
        for (Path folder : (Iterable<Path>)
                moves.stream().map(move -> move.place().getParent()).distinct()::iterator) {
            if (Files.exists(folder)) {
                DurableFile.flushNames(folder);
            }
        }
    }

    private void end() throws IOException {
        Files.deleteIfExists(at.resolve(UNDOING));
        Files.deleteIfExists(at.resolve(DOING));
    }

    /** {@return where the journal of a commit is that a folder takes part in} */
    static Path place(StagingFolder staging) throws IOException {
        Path elsewhere = staging.resolve(ELSEWHERE);
        return Files.exists(elsewhere)
                ? staging.path().resolve(decoded(Files.readString(elsewhere).strip()))
                : staging.path();
    }

    /** Finishes or undoes a commit that was cut; what somebody has changed since stays. */
    static void resume(StagingFolder staging) throws IOException {
        if (Files.exists(staging.resolve(UNDOING))) {
            read(staging, UNDOING).undo();
        } else if (Files.exists(staging.resolve(DOING))) {
            Journal journal = read(staging, DOING);
            List<Move> moves = new ArrayList<>();
            for (Move move : journal.moves) {
                if (!move.isOvertaken()) {
                    moves.add(move);
                }
            }
            new Journal(staging, journal.made, moves).finish();
        }
    }

    private static Journal read(StagingFolder staging, String name) throws IOException {
        List<Path> made = new ArrayList<>();
        List<Move> moves = new ArrayList<>();
        List<String> lines = Files.readAllLines(staging.resolve(name));
        for (String line : lines) {
            String[] parts = line.split(" ");
            if (parts[0].equals(FOLDER)) {
                made.add(path(staging, parts[1]));
            } else if (parts[0].equals(MOVE) && parts.length == PARTS_OF_MOVE) {
                moves.add(
                        new Move(path(staging, parts[1]), path(staging, parts[2]), path(staging, parts[3]), parts[4]));
            } else if (!line.equals(TITLE)) {
                throw new IOException("this is no journal of Morphema: " + staging.resolve(name));
            }
        }
        return new Journal(staging, made, moves);
    }

    private String relative(Path path) {
        Path folder = at.folder();
        return encoded((path.startsWith(folder) ? folder.relativize(path) : path.toAbsolutePath()).toString());
    }

    private static Path path(StagingFolder staging, String encoded) {
        return staging.folder().resolve(decoded(encoded));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    private static void write(Path file, String text) throws IOException {
        try (OutputStream bytes = DurableFile.of(file)) {
            bytes.write(text.getBytes(StandardCharsets.UTF_8));
        }
    }
}
