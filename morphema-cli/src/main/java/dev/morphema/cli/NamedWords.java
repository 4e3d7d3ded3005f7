package dev.morphema.cli;

import dev.morphema.problem.NearNames;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Reads words such as {@code source=file}, whose names may be left out. */
final class NamedWords {
    private NamedWords() {}

    /**
     * {@return what is given for each name; the name may be left out where there is only one it can
     * be}
     *
     * @param known the names
     * @param what the names are of, as messages say it
     * @param option that the words were given with
     */
    static Map<String, List<String>> of(List<String> words, List<String> known, String what, String option) {
        Map<String, List<String>> files = new LinkedHashMap<>();
        for (String word : words) {
            int at = word.indexOf('=');
            String name = at > 0 ? word.substring(0, at) : "";
            String value = word.substring(at > 0 ? at + 1 : 0);
            if (!known.contains(name)) {
                if (known.size() != 1 || at > 0 && isName(name)) {
                    throw unknown(name, at > 0, known, what, option);
                }
                name = known.get(0);
                value = word;
            }
            files.computeIfAbsent(name, n -> new ArrayList<>()).add(value);
        }
        return files;
    }

    private static boolean isName(String word) {
        return word.matches("[\\p{L}_][\\p{L}\\p{N}_-]*");
    }

    private static ProblemException unknown(
            String name, boolean given, List<String> known, String what, String option) {
        if (known.isEmpty()) {
            return TerminalCommand.usage("The mapping has no " + what + ".", null);
        }
        return given
                ? TerminalCommand.usage(
                        "The mapping has no " + what + " " + name + ".",
                        NearNames.proposal(name, known).orElse(null))
                : TerminalCommand.usage(
                        "The mapping has several " + what + "s: " + String.join(", ", known) + ".",
                        "say which is meant: " + option + " " + known.get(0) + "=FILE");
    }
}
