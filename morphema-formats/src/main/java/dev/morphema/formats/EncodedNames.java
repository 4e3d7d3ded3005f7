package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields as they are written, each encoded once for all who write it. Safe for use by many
 * threads.
 *
 * @param <T> what is made of a name; immutable
 */
public final class EncodedNames<T> {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private static final int RECENT_BITS = 6;

    private final Function<FieldName, T> encoding;
    private final Map<FieldName, Known<T>> all = new ConcurrentHashMap<>();

    /**
     * The names that came last, each in a place of its own that others may take from it. Threads
     * may each have put one there; it is only a place to look first.
     */
    private final @Nullable Known<T>[] recent = places();

    private record Known<T>(FieldName name, T encoded) {}

    /** @param encoding makes what is written of a name */
    public EncodedNames(Function<FieldName, T> encoding) {
        this.encoding = encoding;
    }

    @SuppressWarnings("unchecked")
    private static <T> @Nullable Known<T>[] places() {
        return (Known<T>[]) new Known<?>[1 << RECENT_BITS];
    }

    /** {@return what is written of a name} */
    public T of(FieldName name) {
        Known<T> known = recent[place(name)];
        return known != null && known.name.equals(name) ? known.encoded : found(name);
    }

    private static int place(FieldName name) {
        return name.hashCode() * 0x9E3779B9 >>> Integer.SIZE - RECENT_BITS;
    }

    private T found(FieldName name) {
        Known<T> known = all.get(name);
        if (known == null) {
            known = new Known<>(name, encoding.apply(name));
            if (all.size() < MOST) {
                all.put(name, known);
            }
        }
        recent[place(name)] = known;
        return known.encoded;
    }
}
