package dev.morphema.xml;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Says in plain words what the parser found wrong. */
final class XmlFaults {
    private XmlFaults() {}

    static Problem explained(String technical) {
        String first = technical.lines().findFirst().orElse("").trim();
        if (first.contains("nexpected close tag")) {
            Matcher expected =
                    Pattern.compile("close tag (</[^>]+>); expected (</[^>]+>)").matcher(first);
            return expected.find()
                    ? problem("the end tag " + expected.group(1) + " stands where " + expected.group(2) + " must be.")
                            .withHelp("is an element not closed before?")
                    : problem("an end tag stands where another must be.");
        }
        if (first.contains("nexpected EOF") || first.contains("nexpected end")) {
            return problem("the document ends before its elements are closed.");
        }
        if (first.contains("prolog")) {
            return problem("there is something other than an element at the start.")
                    .withHelp("an XML document begins with < ");
        }
        if (first.contains("epilog")) {
            return problem("there is more after the end of the root element.");
        }
        if (first.contains("Undeclared namespace prefix")) {
            return problem("a namespace prefix is used that is not declared.").withHelp(first);
        }
        if (first.contains("ndeclared general entity") || first.contains("General entity reference")) {
            return problem("an entity is used that is not declared.")
                    .withHelp("an ampersand in a text is written &amp;");
        }
        if (first.contains("Duplicate attribute")) {
            return problem("an attribute stands twice in the same element.");
        }
        if (first.contains("imit")) {
            return Problem.error(Code.LIMIT, "The document goes beyond a limit: " + first);
        }
        return problem("it cannot be read.").withHelp(first);
    }

    private static Problem problem(String what) {
        return Problem.error(Code.BAD_XML, "This is not well-formed XML here: " + what);
    }
}
