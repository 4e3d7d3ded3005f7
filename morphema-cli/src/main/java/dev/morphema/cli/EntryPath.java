package dev.morphema.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads the names that lead to a place in a document: {@code ports.'New Haven'.berths}. */
final class EntryPath {
    private static final Pattern STEP = Pattern.compile("'((?:[^']|'')+)'|([^.']+)");

    private EntryPath() {}

    /**
     * {@return the names}
     *
     * @throws dev.morphema.problem.ProblemException if the text is not names with dots between
     */
    static List<String> of(String text) {
        List<String> path = new ArrayList<>();
        Matcher step = STEP.matcher(text);
        int at = 0;
        while (at < text.length()) {
            if (!step.find(at) || step.start() != at) {
                throw wrong(text);
            }
            path.add(step.group(1) == null ? step.group(2) : step.group(1).replace("''", "'"));
            at = step.end();
            if (at < text.length() && text.charAt(at++) != '.' || at == text.length() && text.endsWith(".")) {
                throw wrong(text);
            }
        }
        return path;
    }

    private static RuntimeException wrong(String text) {
        return TerminalCommand.usage(
                "This is not a place in a document: " + text + ".",
                "names with dots between them, odd ones in single quotes: --at \"ports.'New Haven'\"");
    }
}
