package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields as they are written, each encoded once for all who write it. Safe for use by many threads.
 *
 * @param <T> what is made of a name; safe for use by many threads
 */
public final class EncodedNames<T> {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private final Function<FieldName, T> encoding;
    private final Map<FieldName, Known<T>> all = new ConcurrentHashMap<>();

    /** A name, and the one that came next the last time. Threads may each have written that; it is only a guess. */
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

    /** {@return what is asked for the names of one document after the other} */
    public Asking<T> asking() {
        return new Asking<>(this);
    }

    private Known<T> known(FieldName name) {
        Known<T> known = all.get(name);
        if (known == null) {
            known = new Known<>(name, encoding.apply(name));
            if (all.size() < MOST) {
                all.put(name, known);
            }
        }
        return known;
    }

    /**
     * Gives what is written of names. Records mostly have the same fields in the same order, so the name that followed the last
     * one before is tried first. Not thread-safe.
     *
     * @param <T> what is made of a name
     */
    public static final class Asking<T> {
        private final EncodedNames<T> names;
        private @Nullable Known<T> last;

        private Asking(EncodedNames<T> names) {
            this.names = names;
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
            Known<T> known = names.known(name);
            if (last != null) {
                last.following = known;
            }
            return known;
        }
    }
}
