package dev.morphema.yaml;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.ReaderException;

/** Says in plain words what the parser found wrong. */
final class YamlFaults {
    /** Parts of what the parser says, with what is to be done. */
    private static final Map<String, String> HELP = Map.of(
            "mapping values are not allowed here",
                    "a text with a colon and a blank in it stands in quotes; is a line indented too far?",
            "could not find expected ':'",
                    "a name is followed by a colon and a blank, or by a colon at the end of the line",
            "cannot start any token",
                    "YAML is indented by blanks, never by tabs; a text that begins with @ or ` stands in quotes",
            "expected <block end>", "the lines of a record or list begin in the same column",
            "found undefined alias",
                    "an anchor &name stands before its alias *name; a text that begins with * stands in quotes",
            "found duplicate key", "each name stands once in a record",
            "found unexpected end of stream", "a quote or bracket is not closed");

    private YamlFaults() {}

    static ProblemException notWellFormed(String name, MarkedYamlEngineException e) {
        String problem = String.valueOf(e.getProblem()).strip();
        String sentence = problem.isEmpty() ? "it cannot be read" : problem;
        return new ProblemException(
                Problem.error(Code.BAD_YAML, "This is not well-formed YAML here: " + sentence + ".")
                        .in(YamlReader.location(
                                name, e.getProblemMark().or(e::getContextMark).orElse(null)))
                        .withHelp(help(problem)),
                e);
    }

    private static @Nullable String help(String problem) {
        return HELP.entrySet().stream()
                .filter(entry -> problem.contains(entry.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null);
    }

    static Problem character(String name, ReaderException e) {
        return Problem.error(Code.BAD_YAML, "The input has a character that YAML does not allow.")
                .in(YamlReader.location(name, null))
                .withValue(String.format("U+%04X", e.getCodePoint()))
                .withHelp("in double quotes it is written \\u" + String.format("%04X", e.getCodePoint()));
    }

    static Problem encoding(String name) {
        return Problem.error(Code.BAD_ENCODING, "The input has bytes that are not valid in its encoding.")
                .in(YamlReader.location(name, null))
                .withHelp("YAML is in UTF-8, or in UTF-16 or UTF-32 with a byte order mark");
    }
}
