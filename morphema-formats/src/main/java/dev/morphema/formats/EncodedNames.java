package dev.morphema.formats;

import dev.morphema.value.FieldName;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Names of fields as bytes, each encoded once. Not thread-safe. */
public final class EncodedNames {
    /** Names that are data may be any number; more than so many are encoded each time. */
    private static final int MOST = 1_000;

    private final Function<FieldName, byte[]> encoding;
    /** Each at the place of its hash or, if that is taken, at the next free one; at most half of the places are taken. */
    private @Nullable FieldName[] names = new FieldName[32];

    private byte[][] encoded = new byte[names.length][];
    private int size;

    /** @param encoding makes the bytes of a name */
    public EncodedNames(Function<FieldName, byte[]> encoding) {
        this.encoding = encoding;
    }

    /** {@return the bytes of a name, not to be changed} */
    public byte[] of(FieldName name) {
        int place = place(name);
        return names[place] == null ? added(name, place) : encoded[place];
    }

    /** {@return the place of a name, or the free one where it would be} */
    private int place(FieldName name) {
        int mask = names.length - 1;
        int hash = name.hashCode();
        int place = (hash ^ hash >>> 5) & mask;
        for (FieldName known = names[place]; known != null && !known.equals(name); known = names[place]) {
            place = place + 1 & mask;
        }
        return place;
    }

    private byte[] added(FieldName name, int place) {
        byte[] bytes = encoding.apply(name);
        if (size < MOST) {
            names[place] = name;
            encoded[place] = bytes;
            if (++size * 2 > names.length) {
                grow();
            }
        }
        return bytes;
    }

    private void grow() {
        @Nullable FieldName[] allNames = names;
        byte[][] all = encoded;
        names = new FieldName[allNames.length * 2];
        encoded = new byte[names.length][];
        for (int i = 0; i < allNames.length; i++) {
            FieldName name = allNames[i];
            if (name != null) {
                int place = place(name);
                names[place] = name;
                encoded[place] = all[i];
            }
        }
    }
}
