package dev.morphema.function;

import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What a function takes and gives.
 *
 * @param name of the function
 * @param parameters in order
 * @param result what it gives, or null if that depends on what it is given
 * @param text the signature as the reference shows it
 */
public record Signature(
        String name, List<Parameter> parameters, @Nullable Kind result, String text) {
    public Signature {
        parameters = List.copyOf(parameters);
    }

    /**
     * One parameter.
     *
     * @param name as the reference shows it
     * @param want what it takes
     * @param optional whether it may be left out, with all that follow
     * @param repeated whether it may come more than once; only the last
     */
    public record Parameter(String name, Want want, boolean optional, boolean repeated) {}

    private static final String OPTIONAL = "?";
    private static final String REPEATED = "...";

    /**
     * Reads a signature such as {@code round(x: number, digits?: integer): number}; {@code part...: text} may come more
     * than once, a result {@code any} depends on the arguments.
     *
     * @throws IllegalArgumentException if the text is no signature
     */
    static Signature parse(String text) {
        int open = text.indexOf('(');
        int close = text.lastIndexOf("): ");
        if (open < 0 || close < open || !isName(text.substring(0, open))) {
            throw new IllegalArgumentException("This is no signature: " + text + "; one is like size(x: text): number");
        }
        List<Parameter> parameters = new ArrayList<>();
        String[] parts = close == open + 1
                ? new String[0]
                : text.substring(open + 1, close).split(", ");
        for (int i = 0; i < parts.length; i++) {
            Parameter parameter = parameter(parts[i], text);
            boolean last = i == parts.length - 1;
            boolean afterOptional = i > 0 && parameters.get(i - 1).optional();
            if (parameter.repeated() && !last || afterOptional && !parameter.optional()) {
                throw new IllegalArgumentException(
                        "Only the last parameter may be repeated, and after an optional one all are: " + text);
            }
            parameters.add(parameter);
        }
        return new Signature(text.substring(0, open), parameters, result(text.substring(close + 3), text), text);
    }

    private static boolean isName(String text) {
        if (text.isEmpty() || Character.isDigit(text.charAt(0))) {
            return false;
        }
        for (int i = 0; i < text.length(); i++) {
            if (!Character.isLetterOrDigit(text.charAt(i)) && text.charAt(i) != '_') {
                return false;
            }
        }
        return true;
    }

    private static Parameter parameter(String part, String text) {
        int colon = part.indexOf(": ");
        String marked = part.substring(0, Math.max(0, colon));
        boolean optional = marked.endsWith(OPTIONAL);
        boolean repeated = marked.endsWith(REPEATED);
        int mark = optional ? OPTIONAL.length() : repeated ? REPEATED.length() : 0;
        String name = marked.substring(0, marked.length() - mark);
        if (!isName(name)) {
            throw new IllegalArgumentException("The parameter " + part + " is not like x: text, in " + text);
        }
        return new Parameter(name, want(part.substring(colon + 2), text), optional, repeated);
    }

    private static Want want(String name, String text) {
        try {
            return Want.valueOf(name.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("A parameter cannot be of the type " + name + ", in " + text, e);
        }
    }

    private static @Nullable Kind result(String name, String text) {
        try {
            return name.equals("any") ? null : Kind.valueOf(name.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("A result cannot be of the type " + name + ", in " + text, e);
        }
    }

    /** {@return how many arguments there must be at least} */
    public int least() {
        return (int) parameters.stream().filter(p -> !p.optional()).count();
    }

    /** {@return how many arguments there may be at most} */
    public int most() {
        return !parameters.isEmpty() && parameters.get(parameters.size() - 1).repeated()
                ? Integer.MAX_VALUE
                : parameters.size();
    }

    /** {@return the parameter of an argument, counted from 0} */
    public Parameter parameter(int argument) {
        return parameters.get(Math.min(argument, parameters.size() - 1));
    }
}
