package dev.morphema.xml;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Says in plain words what the parser found wrong. */
final class XmlFaults {
    private static final String AMPERSAND = "an ampersand in a text is written &amp;";
    private static final String LESS_THAN = "a < in a text is written &lt;";

    /** The first that is found in what the parser says tells what it means. */
    private static final List<Meaning> MEANINGS = List.of(
            meaning(
                    "close tag (</[^>]+>); expected (</[^>]+>)",
                    "the end tag $1 stands where $2 must be.",
                    "is an element not closed before?"),
            meaning("nexpected close tag", "an end tag stands where another must be.", null),
            meaning("EOF in prolog", "there is no element.", "is this the right file? It holds nothing else"),
            meaning("nexpected EOF|nexpected end", "the document ends before its elements are closed.", null),
            meaning(
                    "prolog",
                    "there is something other than an element at the start.",
                    "an XML document begins with <"),
            meaning("epilog", "there is more after the end of the root element.", null),
            meaning(
                    "Undeclared namespace prefix \"?([^\" ]*)",
                    "the namespace prefix $1 is not declared.",
                    "the element or one around it declares it: xmlns:$1=\"…\""),
            meaning(
                    "ndeclared general entity|General entity reference",
                    "an entity is used that is not declared.",
                    AMPERSAND),
            meaning(
                    "semi-colon after the reference for entity '([^']*)'",
                    "&$1 is not ended by a semicolon.",
                    AMPERSAND),
            meaning("\\(missing name\\?\\)", "a name is missing.", AMPERSAND),
            meaning(
                    "in content after '<'|missing element name",
                    "no name of an element follows the <.",
                    LESS_THAN + "; names begin with a letter or _"),
            meaning(
                    "'<' \\(code 60\\) in attribute value",
                    "a < stands in the value of an attribute.",
                    "is the quote before it missing? " + LESS_THAN),
            meaning(
                    "Expected a quote",
                    "the value of an attribute does not begin with a quote.",
                    "values stand in quotes: name=\"value\""),
            meaning(
                    "expected '='",
                    "an attribute has no value.",
                    "each attribute has a value in quotes: name=\"value\""),
            meaning(
                    "expected space, or '>'|expected a name start",
                    "the start tag goes on with what is no attribute.",
                    "before each attribute there is a blank, and a value ends with the quote that it begins with"),
            meaning("Duplicate attribute", "an attribute stands twice in the same element.", null),
            meaning(
                    "'--' not allowed",
                    "two hyphens stand in a comment.",
                    "a comment ends with -->, and has no -- before"),
            meaning("']]>' not allowed", "]]> stands in a text.", "there it is written ]]&gt;"),
            meaning(
                    "Illegal character|[Nn]ull character|Invalid character reference",
                    "there is a character that XML cannot have.",
                    "control characters other than tab and line ends must be left out where the document is made"),
            meaning(
                    "target \\(\"xml\"\\)",
                    "the XML declaration does not stand at the very start.",
                    "nothing may come before <?xml, no blank and no empty line"));

    /**
     * What it means that the parser says something.
     *
     * @param message with $1 and $2 for the groups of the pattern
     * @param help likewise, or null
     */
    private record Meaning(
            Pattern said, String message, @Nullable String help) {}

    private XmlFaults() {}

    private static Meaning meaning(String said, String message, @Nullable String help) {
        return new Meaning(Pattern.compile(said), message, help);
    }

    static Problem explained(String technical) {
        String first = technical.lines().findFirst().orElse("").trim();
        if (first.contains("imit")) {
            return Problem.error(Code.LIMIT, "The document goes beyond a limit: " + first);
        }
        for (Meaning meaning : MEANINGS) {
            Matcher matcher = meaning.said().matcher(first);
            if (matcher.find()) {
                Problem problem = problem(filled(meaning.message(), matcher));
                return meaning.help() == null ? problem : problem.withHelp(filled(meaning.help(), matcher));
            }
        }
        return problem("it cannot be read.").withHelp(first);
    }

    private static String filled(String text, Matcher matcher) {
        String all = text;
        for (int i = 1; i <= matcher.groupCount(); i++) {
            all = all.replace("$" + i, matcher.group(i));
        }
        return all;
    }

    private static Problem problem(String what) {
        return Problem.error(Code.BAD_XML, "This is not well-formed XML here: " + what);
    }
}
