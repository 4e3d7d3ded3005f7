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

    /**
     * Reads a signature such as {@code round(x: number, digits: integer, mode?: text): number}; {@code part...: text}
     * may come more than once, a result {@code any} depends on the arguments.
     */
    static Signature parse(String text) {
        int open = text.indexOf('(');
        int close = text.lastIndexOf(')');
        List<Parameter> parameters = new ArrayList<>();
        for (String part : text.substring(open + 1, close).split(", ")) {
            if (part.isEmpty()) {
                continue;
            }
            String[] nameAndWant = part.split(": ");
            String name = nameAndWant[0].replaceAll("[?.]", "");
            parameters.add(new Parameter(
                    name,
                    Want.valueOf(nameAndWant[1].toUpperCase(Locale.ROOT)),
                    nameAndWant[0].endsWith("?"),
                    nameAndWant[0].endsWith("...")));
        }
        String result = text.substring(close + 3);
        return new Signature(
                text.substring(0, open),
                parameters,
                result.equals("any") ? null : Kind.valueOf(result.toUpperCase(Locale.ROOT)),
                text);
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
