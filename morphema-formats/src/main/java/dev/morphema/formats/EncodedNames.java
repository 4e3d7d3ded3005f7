package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/**
 * Names of fields as bytes, each encoded once. Documents repeat themselves, so the name that followed last time is tried
 * first. Not thread-safe.
 */
public final class EncodedNames {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private final Function<FieldName, byte[]> encoding;
    private final List<FieldName> names = new ArrayList<>();
    private final List<byte[]> encoded = new ArrayList<>();
    private final Map<FieldName, Integer> places = new HashMap<>();
    private int next;

    /** @param encoding makes the bytes of a name */
    public EncodedNames(Function<FieldName, byte[]> encoding) {
        this.encoding = encoding;
    }

    /** {@return the bytes of a name, not to be changed} */
    public byte[] of(FieldName name) {
        if (next < names.size() && names.get(next) == name) {
            return encoded.get(next++);
        }
        if (!names.isEmpty() && names.get(0) == name) {
            next = 1;
            return encoded.get(0);
        }
        Integer place = places.get(name);
        if (place != null) {
            next = place + 1;
            return encoded.get(place);
        }
        byte[] bytes = encoding.apply(name);
        if (names.size() < MOST) {
            places.put(name, names.size());
            names.add(name);
            encoded.add(bytes);
            next = names.size();
        }
        return bytes;
    }
}
