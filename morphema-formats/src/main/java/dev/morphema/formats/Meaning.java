package dev.morphema.formats;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What it means, in plain words, that a parser says something. Immutable.
 *
 * @param said is found in what the parser says
 * @param message with $1 and $2 for the groups of that
 * @param help a way out, likewise, or null
 */
public record Meaning(
        Pattern said, String message, @Nullable String help) {
    /** {@return the meaning of what a regular expression is found in} */
    public static Meaning of(String said, String message, @Nullable String help) {
        return new Meaning(Pattern.compile(said), message, help);
    }

    /**
     * {@return the problem that the first of some meanings tells, or nothing if none fits}
     *
     * @param opening of its message
     */
    public static Optional<Problem> explained(List<Meaning> meanings, String technical, Code code, String opening) {
        for (Meaning meaning : meanings) {
            Matcher matcher = meaning.said.matcher(technical);
            if (matcher.find()) {
                Problem problem = Problem.error(code, opening + filled(meaning.message, matcher));
                return Optional.of(meaning.help == null ? problem : problem.withHelp(filled(meaning.help, matcher)));
            }
        }
        return Optional.empty();
    }

    private static String filled(String text, Matcher matcher) {
        String all = text;
        for (int i = 1; i <= matcher.groupCount(); i++) {
            all = all.replace("$" + i, matcher.group(i));
        }
        return all;
    }
}
