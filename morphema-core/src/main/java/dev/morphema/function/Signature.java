package dev.morphema.function;

import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
     * @param kind what it takes
     * @param optional whether it may be left out, with all that follow
     * @param repeated whether it may come more than once; only the last
     */
    public record Parameter(String name, ParameterKind kind, boolean optional, boolean repeated) {}

    /** What a parameter is called that takes the pattern of a date, a time or a number. */
    public static final String PATTERN = "pattern";

    private static final Pattern FORM = Pattern.compile("([\\p{L}_][\\p{L}\\p{Nd}_]*)\\((.*)\\): (\\w+)");
    private static final Pattern PARAMETER = Pattern.compile("([\\p{L}_][\\p{L}\\p{Nd}_]*)(\\?|\\.\\.\\.)?: (\\w+)");

    /**
     * Reads a signature such as {@code round(x: number, digits?: integer): number}; {@code part...:
     * text} may come more than once, a result {@code any} depends on the arguments.
     *
     * @throws IllegalArgumentException if the text is no signature
     */
    static Signature parse(String text) {
        Matcher form = FORM.matcher(text);
        if (!form.matches()) {
            throw new IllegalArgumentException("This is no signature: " + text + "; one is like size(x: text): number");
        }
        List<Parameter> parameters = new ArrayList<>();
        String[] parts = form.group(2).isEmpty() ? new String[0] : form.group(2).split(", ");
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
        return new Signature(form.group(1), parameters, result(form.group(3), text), text);
    }

    private static Parameter parameter(String part, String text) {
        Matcher matcher = PARAMETER.matcher(part);
        if (!matcher.matches()) {
            throw new IllegalArgumentException("The parameter " + part + " is not like x: text, in " + text);
        }
        String mark = matcher.group(2) == null ? "" : matcher.group(2);
        return new Parameter(matcher.group(1), kind(matcher.group(3), text), mark.equals("?"), mark.equals("..."));
    }

    private static ParameterKind kind(String name, String text) {
        try {
            return ParameterKind.valueOf(name.toUpperCase(Locale.ROOT));
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
