package dev.morphema.json;

import dev.morphema.format.Limit;
import dev.morphema.formats.Meaning;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import java.util.List;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.core.exc.StreamConstraintsException;

/** Says in plain words what the parser found wrong. */
final class JsonFaults {
    private static final String OPENING = "This is not well-formed JSON here: ";
    private static final String WORDS = "a text stands in double quotes; the words of JSON are true, false and null";
    private static final String NUMBERS =
            "numbers are written like -12.5 or 1e3; any other form stands in double quotes";
    private static final String SUPERFLUOUS_COMMA = "is there a comma before the closing bracket?";

    static final String HALF_CHARACTER = "This text has half of a surrogate pair, which is no character.";
    static final String PAIRS = "\\uD800 to \\uDFFF stand in pairs: \\uD83D\\uDEA2";

    /** The first that is found in what the parser says tells what it means. */
    private static final List<Meaning> MEANINGS = List.of(
            // The word that is meant stands in the message, and may be any.
            Meaning.of("surrogate", "a name has half of a surrogate pair, which is no character.", PAIRS),
            Meaning.of("Unrecognized token", "this word has no meaning.", WORDS),
            Meaning.of("end-of-input", "the input ends in the middle of a value.", null),
            Meaning.of("expecting comma to separate Array", "between two items of a list a comma is missing.", null),
            Meaning.of("expecting comma to separate", "between two fields a comma is missing.", null),
            Meaning.of(
                    "character \\('}'.*double-quote to start property name",
                    "a field's name in double quotes is expected.",
                    SUPERFLUOUS_COMMA),
            Meaning.of(
                    "double-quote to start property name",
                    "a field's name in double quotes is expected.",
                    "names stand in double quotes, not in single ones and not without"),
            Meaning.of("expecting a colon", "after a field's name a colon is missing.", null),
            Meaning.of(
                    "character \\(','.*expected a (?:valid )?value",
                    "a value is expected.",
                    "is there one comma too many, or no value before it? What has none is null"),
            Meaning.of("character \\(']'.*expected a (?:valid )?value", "a value is expected.", SUPERFLUOUS_COMMA),
            Meaning.of(
                    "character \\('}'.*expected a (?:valid )?value",
                    "a value is expected.",
                    "what has no value is null"),
            Meaning.of("character \\('[.\\d]'.*expected a (?:valid )?value", "a value is expected.", NUMBERS),
            Meaning.of("expect(?:ing|ed) a (?:valid )?value", "a value is expected.", WORDS),
            Meaning.of(
                    "no open", "a closing bracket has no opening bracket.", "is there one closing bracket too many?"),
            Meaning.of("Unexpected close marker", "a closing bracket does not match its opening bracket.", null),
            Meaning.of(
                    "has to be escaped",
                    "a text holds a control character, such as a line break, that is not escaped.",
                    "a line break in a text is written \\n"),
            Meaning.of(
                    "character escape '(.)'",
                    "\\$1 stands for no character.",
                    "a backslash in a text is written \\\\, and paths on Windows may have / as well"),
            Meaning.of(
                    "hex-digit for character escape",
                    "four hexadecimal digits must follow \\u.",
                    "a backslash in a text is written \\\\"),
            Meaning.of("\\(non-standard\\) comment", "JSON has no comments.", "leave it out, or make a field of it"),
            Meaning.of("Leading zeroes", "a number has a leading zero.", NUMBERS),
            Meaning.of("numeric value|hexadecimal|Non-standard token", "this is not a JSON number.", NUMBERS));

    private JsonFaults() {}

    /** {@return the limit that the library says was exceeded; none for that of digits} */
    static Optional<Limit> limit(StreamConstraintsException e) {
        String technical = String.valueOf(e.getOriginalMessage());
        if (technical.contains("nesting depth")) {
            return Optional.of(Limit.DEPTH);
        }
        if (technical.contains("Name length") || technical.contains("name length")) {
            return Optional.of(Limit.NAME);
        }
        return technical.contains("Number") ? Optional.empty() : Optional.of(Limit.TEXT);
    }

    static Problem explained(JacksonException e, String input) {
        TokenStreamLocation at = e.getLocation();
        InputLocation place =
                at == null ? InputLocation.at(input, 0, 0) : InputLocation.at(input, at.getLineNr(), at.getColumnNr());
        return Meaning.explained(MEANINGS, String.valueOf(e.getOriginalMessage()), Code.BAD_JSON, OPENING)
                .orElseGet(() -> Problem.error(Code.BAD_JSON, OPENING + "it cannot be read."))
                .in(place);
    }
}
