package dev.morphema.cli;

import java.util.List;
import java.util.regex.Pattern;

/** Reads the names that lead to a place in a document: {@code ports.'New Haven'.berths}. */
final class EntryPath {
    private static final Pattern STEP = Pattern.compile("'((?:[^']|'')+)'|([^.']+)");
    private static final Pattern PATH = Pattern.compile("(?:" + STEP + ")(?:\\.(?:" + STEP + "))*");

    private EntryPath() {}

    /**
     * {@return the names}
     *
     * @throws dev.morphema.problem.ProblemException if the text is not names with dots between
     */
    static List<String> of(String text) {
        if (!PATH.matcher(text).matches()) {
            throw TerminalCommand.usage(
                    "This is not a place in a document: " + text + ".",
                    "names with dots between them, odd ones in single quotes: --at \"ports.'New Haven'\"");
        }
        return STEP.matcher(text)
                .results()
                .map(step ->
                        step.group(1) == null ? step.group(2) : step.group(1).replace("''", "'"))
                .toList();
    }
}
