package dev.morphema.check;

import dev.morphema.shape.Shape;
import dev.morphema.value.FieldName;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds a field that was looked for at one place at another, further down or in another namespace.
 */
final class Elsewhere {
    private static final int DEEPEST = 4;

    private Elsewhere() {}

    /** A place below the first one, with the steps that lead to it. */
    private record Below(Shape shape, String path, int depth) {}

    /** {@return where a field stands instead, as a proposal; null if it is not found} */
    static @Nullable String find(Shape shape, FieldName name) {
        if (name.namespace() != null) {
            FieldName local = name.withoutNamespace();
            return shape.meant(local).stream()
                    .map(FieldName::namespace)
                    .filter(namespace -> namespace != null && !namespace.isEmpty())
                    .findFirst()
                    .map(namespace -> name + " is in the namespace " + namespace)
                    .orElse(null);
        }
        Deque<Below> open = new ArrayDeque<>();
        Set<Object> seen = new HashSet<>();
        open.add(new Below(shape, "", 0));
        while (!open.isEmpty()) {
            Below next = open.remove();
            if (next.depth() > 0 && !next.shape().meant(name).isEmpty()) {
                return "it stands further down: " + next.path() + name;
            }
            if (next.depth() < DEEPEST && seen.add(next.shape().definition())) {
                for (FieldName field : next.shape().names()) {
                    Shape held = Objects.requireNonNull(next.shape().field(field));
                    open.add(new Below(held, next.path() + field + ".", next.depth() + 1));
                }
            }
        }
        return null;
    }
}
