package dev.morphema.yaml;

import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.resolver.CoreScalarResolver;
import org.snakeyaml.engine.v2.resolver.ScalarResolver;

/** Knows which texts are read as texts where they stand without quotes. */
final class PlainTexts {
    private static final ScalarResolver CORE = new CoreScalarResolver(false);

    /** What readers of YAML 1.1, which are many, take for a truth, number, time or date. */
    private static final Pattern OLDER =
            Pattern.compile("(?i)yes|no|on|off|[-+.]?[0-9][-+.:,_0-9a-fx]*|[0-9]{4}-[0-9]{1,2}-[0-9]{1,2}[Tt ].*|<<|=");

    private PlainTexts() {}

    static boolean isText(String text) {
        return !text.isEmpty()
                && CORE.resolve(text, true).equals(Tag.STR)
                && !OLDER.matcher(text).matches();
    }

    /** Blanks at the end of a line would not be seen, and a first line is not indented further. */
    static boolean canBeBlock(String text) {
        return !text.startsWith(" ")
                && !text.startsWith("\n")
                && !text.contains(" \n")
                && text.chars().allMatch(c -> c == '\n' || c >= ' ' && c != 0x7F && c != 0xFEFF);
    }
}
