package dev.morphema.schemas;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.morphema.shape.ScalarType.Facet;
import org.jspecify.annotations.Nullable;

/**
 * Patterns of schemas, matched in linear time. Those that use what that does not allow, such as
 * looking ahead, are left to the validation of documents.
 */
final class Patterns {
    private Patterns() {}

    /** {@return that a text has a pattern somewhere in it, or null if there is none} */
    static @Nullable Facet found(String pattern) {
        if (pattern.isEmpty()) {
            return null;
        }
        try {
            Pattern compiled = Pattern.compile(pattern);
            return new Facet(
                    "a text like " + pattern, text -> compiled.matcher(text).find());
        } catch (PatternSyntaxException e) {
            return null;
        }
    }

    /** {@return that a text is as a pattern of XSD says, or null if there is none} */
    static @Nullable Facet whole(String pattern) {
        if (pattern.isEmpty()) {
            return null;
        }
        try {
            // Names of XML have classes of their own in XSD.
            String known = pattern.replace("\\i", "[\\pL_:]").replace("\\c", "[-.\\pL\\pN_:]");
            Pattern compiled = Pattern.compile(known);
            return new Facet("a text like " + pattern, text -> compiled.matches(text));
        } catch (PatternSyntaxException e) {
            return null;
        }
    }
}
