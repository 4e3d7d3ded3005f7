package dev.morphema.function;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Missing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Functions of regular expressions, which take time in proportion to the text, whatever the
 * expression.
 */
final class Patterns implements FunctionTable.Family {
    /** The compiler of expressions needs stack for each level. */
    private static final int MOST_DEEP = 200;

    @Override
    public void addTo(FunctionSet functions) {
        add(
                functions,
                "matches(text: text, expression: text): boolean",
                (pattern, a) -> BooleanValue.of(pattern.matches(TextFunctions.text(a, 0))));
        add(functions, "extract(text: text, expression: text): text", Patterns::extract);
        add(functions, "replaceAll(text: text, expression: text, new: text): text", Patterns::replaceAll);
    }

    /** What is done with a compiled expression. */
    private interface Use {
        Value apply(Pattern pattern, Value[] arguments);
    }

    private static void add(FunctionSet functions, String signature, Use use) {
        functions.made(signature, constants -> body(constants, use));
    }

    private static Function.Body body(List<@Nullable Value> constants, Use use) {
        if (constants.get(1) instanceof TextValue text) {
            Pattern pattern = compiled(text.text());
            return (a, run) -> use.apply(pattern, a);
        }
        return (a, run) -> {
            try {
                return use.apply(compiled(TextFunctions.text(a, 1)), a);
            } catch (IllegalArgumentException e) {
                throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, String.valueOf(e.getMessage()))
                        .withValue(TextFunctions.text(a, 1)));
            }
        };
    }

    private static Pattern compiled(String pattern) {
        if (depth(pattern) > MOST_DEEP) {
            throw new IllegalArgumentException(
                    "The groups of this regular expression are nested more than " + MOST_DEEP + " deep.");
        }
        try {
            return Pattern.compile(pattern);
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException("This is no regular expression: " + e.getDescription() + ".", e);
        }
    }

    /**
     * {@return how deep groups are nested at most}; parentheses in classes count too, which does no
     * harm.
     */
    private static int depth(String pattern) {
        int deepest = 0;
        int depth = 0;
        for (int i = 0; i < pattern.length(); i++) {
            switch (pattern.charAt(i)) {
                case '\\' -> i++;
                case '(' -> deepest = Math.max(deepest, ++depth);
                case ')' -> depth--;
                default -> {}
            }
        }
        return deepest;
    }

    /** The first group of the first match or, without groups, all of it. */
    private static Value extract(Pattern pattern, Value[] a) {
        Matcher matcher = pattern.matcher(TextFunctions.text(a, 0));
        if (!matcher.find()) {
            return Missing.ABSENT;
        }
        String found = matcher.groupCount() > 0 ? matcher.group(1) : matcher.group();
        return found == null ? Missing.ABSENT : TextValue.of(found);
    }

    /** In the new text $1 stands for the first group, $0 for all, \\$ for a dollar sign. */
    private static Value replaceAll(Pattern pattern, Value[] a) {
        try {
            return TextValue.of(pattern.matcher(TextFunctions.text(a, 0)).replaceAll(TextFunctions.text(a, 2)));
        } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
            throw new ProblemException(Problem.error(
                            Code.OUT_OF_RANGE, "The replacement refers to a group that the pattern does not have.")
                    .withValue(TextFunctions.text(a, 2))
                    .withHelp("$1 stands for the first group; a dollar sign is written \\\\$"));
        }
    }
}
