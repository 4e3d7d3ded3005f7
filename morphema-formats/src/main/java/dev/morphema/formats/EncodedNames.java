package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields as they are written, each encoded once. Records mostly have the same fields in the same order, so the name
 * that followed the last one before is tried first. Not thread-safe.
 *
 * @param <T> what is made of a name
 */
public final class EncodedNames<T> {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private final Function<FieldName, T> encoding;
    private final Map<FieldName, Known<T>> all = new HashMap<>();
    private @Nullable Known<T> last;

    /** A name, and the one that came next the last time. */
    private static final class Known<T> {
        private final FieldName name;
        private final T encoded;
        private @Nullable Known<T> following;

        Known(FieldName name, T encoded) {
            this.name = name;
            this.encoded = encoded;
        }
    }

    /** @param encoding makes what is written of a name */
    public EncodedNames(Function<FieldName, T> encoding) {
        this.encoding = encoding;
    }

    /** {@return what is written of a name} */
    public T of(FieldName name) {
        Known<T> expected = last == null ? null : last.following;
        // A mapping gives the same object each time; another that is equal is found as well, it only takes longer.
        if (expected == null || expected.name != name) {
            expected = found(name);
        }
        last = expected;
        return expected.encoded;
    }

    private Known<T> found(FieldName name) {
        Known<T> known = all.get(name);
        if (known == null) {
            known = new Known<>(name, encoding.apply(name));
            if (all.size() < MOST) {
                all.put(name, known);
            }
        }
        if (last != null) {
            last.following = known;
        }
        return known;
    }
}
