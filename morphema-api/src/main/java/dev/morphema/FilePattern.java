package dev.morphema;

import dev.morphema.output.FileFaults;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.Comparator;
import java.util.List;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Stream;

/**
 * Finds the files that a pattern such as {@code inbox/*.xml} means; {@code **} stands for folders
 * of any depth.
 */
public final class FilePattern {
    private FilePattern() {}

    /**
     * {@return the files that are meant, sorted by name; just the one where the word is no pattern,
     * whether it is there or not}
     *
     * @param folder in which a relative pattern begins; an empty path for the current folder
     * @param word a pattern, or the name of a file
     * @throws ProblemException if a pattern means no file, or is none
     */
    public static List<Path> files(Path folder, String word) {
        if (!isPattern(word) || exists(folder, word)) {
            return List.of(folder.resolve(word));
        }
        String pattern = plain(word);
        int fixed = fixed(pattern);
        Path start = start(folder, word);
        List<Path> found = List.of();
        try {
            PathMatcher matcher = start.getFileSystem().getPathMatcher("glob:" + pattern.substring(fixed + 1));
            if (Files.isDirectory(start)) {
                try (Stream<Path> files =
                        Files.walk(start, pattern.contains("**") ? Integer.MAX_VALUE : depth(pattern, fixed))) {
                    found = files.filter(file -> matcher.matches(start.relativize(file)) && !Files.isDirectory(file))
                            .sorted(Comparator.comparing(Path::toString))
                            .toList();
                }
            }
        } catch (PatternSyntaxException e) {
            throw new ProblemException(Problem.error(Code.USAGE, "This is no pattern of files: " + word + "."));
        } catch (IOException e) {
            throw unreadable(word, e);
        } catch (UncheckedIOException e) {
            // A folder on the way cannot be looked into.
            throw unreadable(word, e.getCause());
        }
        if (found.isEmpty()) {
            throw new ProblemException(Problem.error(Code.FILE_NOT_FOUND, "No file is like " + word + "."));
        }
        return found;
    }

    private static String plain(String word) {
        return word.startsWith("./") ? word.substring(2) : word;
    }

    /** {@return where the part of a pattern ends that is no pattern itself, or -1} */
    private static int fixed(String pattern) {
        return pattern.lastIndexOf('/', firstMark(pattern));
    }

    /** {@return the folder in which, or below which, the files of a pattern are} */
    static Path start(Path folder, String word) {
        String pattern = plain(word);
        int fixed = fixed(pattern);
        return folder.resolve(fixed < 0 ? "" : fixed == 0 ? "/" : pattern.substring(0, fixed));
    }

    private static ProblemException unreadable(String word, IOException e) {
        return new ProblemException(
                Problem.error(
                                Code.NOT_READABLE,
                                "The files of a pattern cannot be looked for: " + FileFaults.reason(e) + ".")
                        .withValue(word),
                e);
    }

    /** {@return whether a word means files by a pattern} */
    public static boolean isPattern(String word) {
        return firstMark(word) < word.length();
    }

    private static boolean exists(Path folder, String word) {
        try {
            return Files.exists(folder.resolve(word));
        } catch (InvalidPathException e) {
            return false;
        }
    }

    private static int firstMark(String word) {
        int at = 0;
        while (at < word.length() && "*?[{".indexOf(word.charAt(at)) < 0) {
            at++;
        }
        return at;
    }

    private static int depth(String pattern, int fixed) {
        return (int) pattern.substring(fixed + 1).chars().filter(c -> c == '/').count() + 1;
    }
}
