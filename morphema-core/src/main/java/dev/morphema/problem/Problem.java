package dev.morphema.problem;

import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One thing that is wrong or doubtful. Immutable.
 *
 * <p>Texts are kept short: names and values that are longer than anybody reads end with an
 * ellipsis.
 *
 * <p>The message holds no data of an input; the offending value is a field of its own, so that a
 * caller decides whether to show it.
 *
 * @param severity how much it weighs
 * @param code what kind of problem it is
 * @param message one plain sentence
 * @param rule the place in the mapping, or null
 * @param input the place in the input, or null
 * @param value the offending value, or null
 * @param help a proposal what to do, or null
 */
public record Problem(
        Severity severity,
        Code code,
        String message,
        @Nullable RuleLocation rule,
        @Nullable InputLocation input,
        @Nullable String value,
        @Nullable String help) {

    private static final int MOST_OF_MESSAGE = 1_000;
    private static final int MOST_OF_VALUE = 10_000;

    public Problem {
        Objects.requireNonNull(severity);
        Objects.requireNonNull(code);
        message = shortened(Objects.requireNonNull(message), MOST_OF_MESSAGE);
        value = value == null ? null : shortened(value, MOST_OF_VALUE);
        help = help == null ? null : shortened(help, MOST_OF_MESSAGE);
    }

    private static String shortened(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }

    /** {@return an error without any place} */
    public static Problem error(Code code, String message) {
        return new Problem(Severity.ERROR, code, message, null, null, null, null);
    }

    /** {@return a warning without any place} */
    public static Problem warning(Code code, String message) {
        return new Problem(Severity.WARNING, code, message, null, null, null, null);
    }

    /** {@return the same problem at a place in the mapping} */
    public Problem at(@Nullable RuleLocation place) {
        return new Problem(severity, code, message, place, input, value, help);
    }

    /** {@return the same problem at a place in an input} */
    public Problem in(@Nullable InputLocation place) {
        return new Problem(severity, code, message, rule, place, value, help);
    }

    /** {@return the same problem with the offending value} */
    public Problem withValue(@Nullable String offending) {
        return new Problem(severity, code, message, rule, input, offending, help);
    }

    /** {@return the same problem with a proposal} */
    public Problem withHelp(@Nullable String proposal) {
        return new Problem(severity, code, message, rule, input, value, proposal);
    }

    /** {@return the same problem with one more proposal behind that which it may have} */
    public Problem withFurtherHelp(String proposal) {
        if (help == null) {
            return withHelp(proposal);
        }
        return withHelp(help + (help.endsWith("?") ? " " : "; ") + proposal);
    }

    /**
     * {@return what may be written in place of the rule at hand}, whose place and length are those
     * of what it replaces; empty if there is no such proposal
     */
    public Optional<String> replacement() {
        return rule == null ? Optional.empty() : NearNames.replacement(help);
    }

    /** {@return the same problem as an error} */
    public Problem asError() {
        return new Problem(Severity.ERROR, code, message, rule, input, value, help);
    }

    /** {@return whether this is an error} */
    public boolean isError() {
        return severity == Severity.ERROR;
    }

    /** {@return the problem in one line, without the value} */
    @Override
    public String toString() {
        StringBuilder out = new StringBuilder();
        if (rule != null) {
            out.append(rule).append(": ");
        }
        out.append(isError() ? "error" : "warning")
                .append(" [")
                .append(code.printed())
                .append("] ")
                .append(message);
        if (input != null) {
            out.append(" (").append(input).append(')');
        }
        if (help != null) {
            out.append(" — ").append(help);
        }
        return out.toString();
    }
}
