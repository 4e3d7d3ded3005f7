package dev.morphema.output;

import dev.morphema.engine.Writers;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The names that the documents of one target have so far. A name comes from data, so it is taken
 * only if it stays in its folder, is allowed on all common file systems, and is not the name of
 * another document where letter case does not count. Not thread-safe.
 */
final class DocumentNames {
    /** What common file systems allow for one part of a path. */
    private static final int MOST_BYTES = 255;

    private static final Pattern FORBIDDEN = Pattern.compile("[<>:\"|?*\\\\\\x00-\\x1F\\x7F]");
    private static final Pattern DEVICE = Pattern.compile(
            "(con|prn|aux|nul|conin\\$|conout\\$|clock\\$|(com|lpt)[0-9\u00B9\u00B2\u00B3]) *(\\..*)?",
            Pattern.CASE_INSENSITIVE);

    /** What nobody sees, or what changes the order in which the rest is shown. */
    private static final Pattern INVISIBLE =
            Pattern.compile("[\\p{Cf}\\p{Cc}\\p{Zl}\\p{Zp}\\u034F\\u115F\\u1160\\u17B4\\u17B5"
                    + "\\u180B-\\u180F\\u3164\\uFFA0\\uFE00-\\uFE0F\\x{E0100}-\\x{E01EF}]");

    private static final Pattern BLANK_AT_END = Pattern.compile("^\\p{Z}.*|.*[\\p{Z}.]$");

    /**
     * Where the record stood that a document, or the first document in a folder, is made for; by
     * the folded name.
     */
    private final Map<String, Taken> taken = new HashMap<>();

    private record Taken(boolean folder, @Nullable InputLocation place) {}

    /**
     * Takes a name.
     *
     * @throws ProblemException if it cannot be the name of a document, or is taken
     */
    void take(Writers.Document document) {
        String name = document.name();
        String[] parts = name.split("/", -1);
        for (String part : parts) {
            String fault = fault(part, name);
            if (fault != null) {
                throw refused(
                        name, fault, "the name is that of a file below the output folder, such as calls/9000011.json");
            }
        }
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < parts.length; i++) {
            path.append(i > 0 ? "/" : "").append(folded(parts[i]));
            boolean folder = i < parts.length - 1;
            Taken before = taken.putIfAbsent(path.toString(), new Taken(folder, document.place()));
            if (before != null && !(before.folder() && folder)) {
                throw refused(
                        name,
                        before.folder() || folder
                                ? "it is the name of a folder and of a document."
                                : "another document has it already, or differs only in upper and lower case.",
                        before.place() == null
                                ? "put more of the key into the name"
                                : "the other was made for " + before.place() + "; put more of the key into the name");
            }
        }
    }

    private static ProblemException refused(String name, String why, String help) {
        return new ProblemException(Problem.error(Code.DOCUMENT_NAME, "A document cannot have this name: " + why)
                .withValue(name)
                .withHelp(help));
    }

    /**
     * Whether the system has all characters of a name; in some environments it knows those of ASCII
     * only.
     */
    private static boolean canBeHere(String part) {
        try {
            Path.of(part);
            return true;
        } catch (InvalidPathException e) {
            return false;
        }
    }

    private static @Nullable String fault(String part, String name) {
        if (name.isEmpty()) {
            return "it is empty.";
        }
        if (part.isEmpty()) {
            return "a part of it between / is empty.";
        }
        if (part.equals(".") || part.equals("..")) {
            return "it leads out of the output folder, or nowhere.";
        }
        if (FORBIDDEN.matcher(part).find()) {
            return "it has a character that not all file systems allow.";
        }
        if (INVISIBLE.matcher(part).find()) {
            return "it has a character that cannot be seen, or that changes the order in which others are shown.";
        }
        if (BLANK_AT_END.matcher(part).matches()) {
            return "a part of it begins with a blank, or ends with a blank or a point.";
        }
        if (!canBeHere(part)) {
            return "no file of this system can be called so.";
        }
        if (DEVICE.matcher(part).matches()) {
            return "it is the name of a device on some systems.";
        }
        if (folded(part).endsWith(StagingFolder.SUFFIX)) {
            return "files that are not finished are called so.";
        }
        return part.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES ? "it is too long." : null;
    }

    /** Names that some file system takes for the same. */
    static String folded(String part) {
        return Normalizer.normalize(part, Normalizer.Form.NFC)
                .toUpperCase(Locale.ROOT)
                .toLowerCase(Locale.ROOT);
    }
}
