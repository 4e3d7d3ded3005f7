package dev.morphema.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A format with its options, as it is written: {@code csv(delimiter = ";")}.
 *
 * @param span where it stands
 * @param name of the format
 * @param options in written order
 */
public record FormatRef(Span span, String name, List<Option> options) {
    public FormatRef {
        options = List.copyOf(options);
    }

    /**
     * One option.
     *
     * @param span where it stands
     * @param name its name; null for a constant without a name, such as the file of a table
     * @param value its value
     */
    public record Option(Span span, @Nullable String name, Constant value) {}
}
