package dev.morphema;

import dev.morphema.format.Input;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Shows the line of an input that a problem is about, where the input can be read once more or
 * remembers it.
 */
final class InputLines {
    /** Of a longer line this much is shown, around the place of the problem. */
    private static final int MOST_SHOWN = 160;

    private static final String CUT = "…";

    /** So far into an input a line is looked for; beyond, its number must do. */
    private static final long MOST_LINES = 5_000_000;

    /** So much of a line is looked at; a whole document may be one. */
    private static final int MOST_OF_A_LINE = 4 << 20;

    private InputLines() {}

    /** {@return the problem, with the line of the input if that can be had} */
    static Problem shown(Problem problem, Inputs inputs) {
        InputLocation place = problem.input();
        if (place == null || place.line() == 0 || place.text() != null || place.line() > MOST_LINES) {
            return problem;
        }
        for (List<Input> ofSource : inputs.bySource().values()) {
            for (Input input : ofSource) {
                if (input.name().equals(place.input())) {
                    String line = line(input, place.line());
                    return line == null ? problem : problem.in(cut(found(place, line, problem.value()), line));
                }
            }
        }
        return problem;
    }

    private static @Nullable String line(Input input, long number) {
        if (input instanceof RereadableInputs.BegunInput begun) {
            return begun.stream().line(number);
        }
        if (!input.isRereadable()) {
            return null;
        }
        try (Reader lines = new InputStreamReader(input.open(), StandardCharsets.UTF_8)) {
            char[] part = new char[1 << 13];
            StringBuilder line = new StringBuilder();
            long at = 1;
            for (int count = lines.read(part); count >= 0; count = lines.read(part)) {
                for (int i = 0; i < count; i++) {
                    if (at == number && (part[i] == '\n' || line.length() == MOST_OF_A_LINE)) {
                        return line.toString();
                    }
                    if (part[i] == '\n') {
                        at++;
                    } else if (at == number && part[i] != '\r') {
                        line.append(part[i]);
                    }
                }
            }
            return at < number ? null : line.toString();
        } catch (IOException e) {
            return null;
        }
    }

    /**
     * {@return the place with its column}, where only the line is known and the value stands in it
     * once
     */
    private static InputLocation found(InputLocation place, String line, @Nullable String value) {
        if (place.column() > 0 || line.length() <= MOST_SHOWN || value == null || value.isEmpty()) {
            return place;
        }
        int at = line.indexOf(value);
        return at < 0 || line.indexOf(value, at + 1) >= 0
                ? place
                : new InputLocation(place.input(), place.record(), place.line(), at + 1, place.field(), null);
    }

    private static InputLocation cut(InputLocation place, String line) {
        if (line.length() <= MOST_SHOWN) {
            return place.withText(line);
        }
        int from = Math.max(0, Math.min(place.column() - 1 - MOST_SHOWN / 2, line.length() - MOST_SHOWN));
        String part = line.substring(from, from + MOST_SHOWN);
        String rest = from + MOST_SHOWN < line.length() ? CUT : "";
        // The mark of what is left out takes the place of one character before the part.
        return from > 0 ? place.withText(CUT + part + rest, from) : place.withText(part + rest, 1);
    }
}
