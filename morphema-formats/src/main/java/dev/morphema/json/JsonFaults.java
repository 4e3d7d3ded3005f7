package dev.morphema.json;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.TokenStreamLocation;

/** Says in plain words what the parser found wrong. */
final class JsonFaults {
    private JsonFaults() {}

    static Problem explained(JacksonException e, String input) {
        TokenStreamLocation at = e.getLocation();
        InputLocation place =
                at == null ? InputLocation.at(input, 0, 0) : InputLocation.at(input, at.getLineNr(), at.getColumnNr());
        String technical = String.valueOf(e.getOriginalMessage());
        Problem problem = Problem.error(Code.BAD_JSON, "This is not well-formed JSON here: " + sentence(technical));
        return problem.in(place).withHelp(help(technical));
    }

    private static String sentence(String technical) {
        if (technical.contains("end-of-input")) {
            return "the input ends in the middle of a value.";
        }
        if (technical.contains("expecting comma to separate")) {
            return technical.contains("Array")
                    ? "between two items of a list a comma is missing."
                    : "between two fields a comma is missing.";
        }
        if (technical.contains("expecting double-quote to start property name")) {
            return "a field's name in double quotes is expected.";
        }
        if (technical.contains("expecting a colon")) {
            return "after a field's name a colon is missing.";
        }
        if (technical.contains("expecting a valid value")
                || technical.contains("expected a valid value")
                || technical.contains("expected a value")) {
            return "a value is expected.";
        }
        if (technical.contains("Unexpected close marker")) {
            return "a bracket closes what another kind of bracket has opened.";
        }
        if (technical.contains("has to be escaped")) {
            return "a text holds a control character, such as a line break, that is not escaped.";
        }
        if (technical.contains("Unrecognized token")) {
            return "this word has no meaning.";
        }
        return "it cannot be read.";
    }

    private static @Nullable String help(String technical) {
        if (technical.contains("character ('}'") || technical.contains("character (']'")) {
            return "is there a comma before the closing bracket?";
        }
        if (technical.contains("has to be escaped")) {
            return "a line break in a text is written \\n";
        }
        if (technical.contains("Unrecognized token")) {
            return "a text stands in double quotes; the words of JSON are true, false and null";
        }
        return null;
    }
}
