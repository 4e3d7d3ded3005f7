package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Names of fields as bytes, each encoded once. Documents repeat themselves, so the name that followed last time is tried
 * first. Not thread-safe.
 */
public final class EncodedNames {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private final Function<FieldName, byte[]> encoding;
    private @Nullable FieldName[] names = new FieldName[16];
    private byte[][] encoded = new byte[16][];
    private final Map<FieldName, Integer> places = new HashMap<>();
    private int next;

    /** @param encoding makes the bytes of a name */
    public EncodedNames(Function<FieldName, byte[]> encoding) {
        this.encoding = encoding;
    }

    /** {@return the bytes of a name, not to be changed} */
    public byte[] of(FieldName name) {
        int place = next;
        if (names[place] != name) {
            place = names[0] == name ? 0 : place(name);
            if (place < 0) {
                return encoding.apply(name);
            }
        }
        next = place + 1 < names.length ? place + 1 : 0;
        return encoded[place];
    }

    private int place(FieldName name) {
        Integer known = places.get(name);
        if (known != null) {
            return known;
        }
        int place = places.size();
        if (place == MOST) {
            return -1;
        }
        if (place == names.length) {
            names = Arrays.copyOf(names, place * 2);
            encoded = Arrays.copyOf(encoded, place * 2);
        }
        names[place] = name;
        encoded[place] = encoding.apply(name);
        places.put(name, place);
        return place;
    }
}
