package dev.morphema.syntax;

import java.util.List;

/**
 * A type as it is written: {@code datetime('dd.MM.yyyy', 'Europe/Oslo')}.
 *
 * @param span where it stands
 * @param name of the type
 * @param arguments its constants
 */
public record TypeRef(Span span, String name, List<Constant> arguments) {
    public TypeRef {
        arguments = List.copyOf(arguments);
    }
}
