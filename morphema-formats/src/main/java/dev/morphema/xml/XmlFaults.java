package dev.morphema.xml;

import dev.morphema.format.Limit;
import dev.morphema.formats.Meaning;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLStreamException;

/** Says in plain words what the parser found wrong. */
final class XmlFaults {
    private static final String AMPERSAND = "an ampersand in a text is written &amp;";
    private static final String LESS_THAN = "a < in a text is written &lt;";

    /**
     * The first that is found in what the parser says tells what it means. Before all others are
     * those of messages with names of the document, which may be any words.
     */
    private static final List<Meaning> MEANINGS = List.of(
            Meaning.of(
                    "close tag (</[^>]+>); expected (</[^>]+>)",
                    "the end tag $1 stands where $2 must be.",
                    "is an element not closed before?"),
            Meaning.of("nexpected close tag", "an end tag stands where another must be.", null),
            Meaning.of(
                    "Undeclared namespace prefix \"?xmlns|Malformed qualified name|can not contain a colon",
                    "this is not a valid name of an element or attribute.",
                    "a name has at most one colon, behind its prefix; the prefix xmlns only declares others"),
            Meaning.of(
                    "Malformed namespace declaration|amespace can not map|Trying to (?:bind|declare)|edeclare",
                    "this is not a valid declaration of a namespace.",
                    "a prefix stands for an address that is not empty: xmlns:p=\"…\"; xml and xmlns stand for their own"),
            Meaning.of(
                    "Undeclared namespace prefix \"?([^\" ]*)",
                    "the namespace prefix $1 is not declared.",
                    "the element or one around it declares it: xmlns:$1=\"…\""),
            Meaning.of(
                    "ndeclared general entity|General entity reference",
                    "an entity is used but not declared.",
                    AMPERSAND),
            Meaning.of(
                    "semi-colon after the reference for entity '([^']*)'",
                    "&$1 is not ended by a semicolon.",
                    AMPERSAND),
            Meaning.of("Duplicate attribute", "an attribute is repeated in the same element.", null),
            Meaning.of("EOF in prolog", "there is no element.", "is this the right file? It holds nothing else"),
            Meaning.of("nexpected EOF|nexpected end", "the document ends before its elements are closed.", null),
            Meaning.of(
                    "prolog",
                    "there is something other than an element at the start.",
                    "an XML document begins with <"),
            Meaning.of("epilog", "something follows the root element.", null),
            Meaning.of("\\(missing name\\?\\)", "a name is missing.", AMPERSAND),
            Meaning.of(
                    "in content after '<'|missing element name",
                    "no name of an element follows the <.",
                    LESS_THAN + "; names begin with a letter or _"),
            Meaning.of(
                    "'<' \\(code 60\\) in attribute value",
                    "a < stands in the value of an attribute.",
                    "is the quote before it missing? " + LESS_THAN),
            Meaning.of(
                    "Expected a quote",
                    "the value of an attribute does not begin with a quote.",
                    "values stand in quotes: name=\"value\""),
            Meaning.of(
                    "expected '='",
                    "an attribute has no value.",
                    "each attribute has a value in quotes: name=\"value\""),
            Meaning.of(
                    "expected space, or '>'|expected a name start",
                    "the start tag holds something that is not an attribute.",
                    "before each attribute there is a blank, and a value ends with the quote that it begins with"),
            Meaning.of(
                    "'--' not allowed",
                    "a comment holds two hyphens.",
                    "a comment ends with -->, and has no -- before"),
            Meaning.of("']]>' not allowed", "]]> stands in a text.", "there it is written ]]&gt;"),
            Meaning.of(
                    "Illegal character|[Nn]ull character|Invalid character reference",
                    "a character is not allowed in XML.",
                    "control characters other than tab and line ends must be left out where the document is made"),
            Meaning.of(
                    "target \\(\"xml\"\\)",
                    "the XML declaration does not stand at the very start.",
                    "nothing may come before <?xml, no blank and no empty line"));

    /** What the parser says of its limits; no name of a document stands before the word. */
    private static final Pattern BEYOND = Pattern.compile("([\\w ]+) limit \\(\\d+\\) [Ee]xceeded");

    /** Those of its limits that are ours; the others are of entities. */
    private static final Map<String, Limit> LIMITS = Map.of(
            "Maximum Element Depth", Limit.DEPTH,
            "Maximum attribute size", Limit.TEXT,
            "Text size", Limit.TEXT,
            "Attribute", Limit.FIELDS);

    private static final String OPENING = "This is not well-formed XML here: ";

    private XmlFaults() {}

    static Problem explained(String technical) {
        String first = technical.lines().findFirst().orElse("").trim();
        return Meaning.explained(MEANINGS, first, Code.BAD_XML, OPENING).orElseGet(() -> unknown(first));
    }

    /** {@return the limit that was exceeded, if that is what is wrong} */
    static Optional<Limit> limit(XMLStreamException e) {
        if (e instanceof XmlLimitException beyond) {
            return Optional.of(beyond.limit());
        }
        Matcher beyond = BEYOND.matcher(String.valueOf(e.getMessage()));
        return beyond.lookingAt() ? Optional.ofNullable(LIMITS.get(beyond.group(1))) : Optional.empty();
    }

    static Problem longProlog() {
        return Problem.error(
                Code.LIMIT,
                "There are more than " + XmlCharacterReader.MOST_OF_PROLOG + " characters before the root element.");
    }

    private static Problem unknown(String technical) {
        return BEYOND.matcher(technical).lookingAt()
                ? Problem.error(
                        Code.LIMIT,
                        "The entities of this document are used more than " + XmlParsers.MOST_ENTITIES
                                + " times, or lie more than " + XmlParsers.DEEPEST_ENTITY + " deep in one another.")
                : Problem.error(Code.BAD_XML, OPENING + "it cannot be read.").withHelp(technical);
    }
}
