package dev.morphema.xml;

import com.ctc.wstx.io.WstxInputData;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;

/** What XML 1.0 and its namespaces allow as characters and names. */
final class XmlCharacters {
    private XmlCharacters() {}

    /**
     * Refuses a text with a character that XML 1.0 cannot hold, even as a reference (production 2,
     * Char).
     */
    static void check(String text) {
        int plain = 0;
        while (plain < text.length() && text.charAt(plain) >= ' ' && text.charAt(plain) < Character.MIN_SURROGATE) {
            plain++;
        }
        for (int i = plain; i < text.length(); ) {
            int c = text.codePointAt(i);
            boolean allowed = c >= 0x20 && c <= 0xD7FF
                    || c == 0x9
                    || c == 0xA
                    || c == 0xD
                    || c >= 0xE000 && c <= 0xFFFD
                    || c >= 0x10000;
            if (!allowed) {
                throw new ProblemException(Problem.error(
                                Code.NOT_WRITABLE,
                                String.format("This text has the character U+%04X, which XML cannot hold.", c))
                        .withHelp("replace(x, \"\\u{" + Integer.toHexString(c) + "}\", \"\") takes it away"));
            }
            i += Character.charCount(c);
        }
    }

    /** Refuses what is no name without colon (Namespaces in XML, production 4, NCName). */
    static void checkName(FieldName name) {
        String local = name.local();
        boolean good = !local.isEmpty()
                && isStart(local.codePointAt(0))
                && local.codePoints().allMatch(XmlCharacters::isPart);
        if (!good) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This cannot be the name of an element or attribute in XML.")
                            .withValue(local)
                            .withHelp("a name begins with a letter or _, and has letters, digits, _ - and . after it"));
        }
    }

    /** Names as in the first four editions of XML 1.0, which each parser takes. */
    private static boolean isStart(int c) {
        return Character.isBmpCodePoint(c) && WstxInputData.isNameStartChar((char) c, true, false);
    }

    private static boolean isPart(int c) {
        return Character.isBmpCodePoint(c) && WstxInputData.isNameChar((char) c, true, false);
    }
}
