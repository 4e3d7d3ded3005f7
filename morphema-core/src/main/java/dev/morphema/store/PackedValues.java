package dev.morphema.store;

import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import org.jspecify.annotations.Nullable;

/**
 * Values, and rows of values, as bytes one behind the other. They take a fraction of the memory
 * that their objects do, and Java has nothing to look after. What is taken out is made anew each
 * time. Not thread-safe.
 */
public final class PackedValues {
    /** So few values are found sooner as they are. */
    public static final int MOST_UNPACKED = 1 << 10;

    private final ValueNames names = new ValueNames();
    private final ValueEncoder encoder = new ValueEncoder(names);
    private final PackedBytes packed = new PackedBytes();

    /** Adds a value; gives its place. */
    public int add(Value value) {
        encoder.clear();
        encoder.add(value);
        return addEncoded();
    }

    /** Adds a row of values, each of which may be null; gives its place. */
    public int add(@Nullable Value[] row) {
        encoder.clear();
        encoder.row(row);
        return addEncoded();
    }

    private int addEncoded() {
        int length = encoder.length();
        int place = packed.add(length);
        System.arraycopy(encoder.bytes(), 0, packed.array(place), PackedBytes.offset(place), length);
        return place;
    }

    /** {@return how many bytes were added last} */
    public int lastLength() {
        return encoder.length();
    }

    /** {@return the value at a place} */
    public Value value(int place) {
        return decoder().value(packed.array(place), PackedBytes.offset(place));
    }

    /** {@return the row at a place} */
    @Nullable
    Value[] row(int place) {
        return decoder().row(packed.array(place), PackedBytes.offset(place));
    }

    /** {@return the first values of the row at a place} */
    @Nullable
    Value[] row(int place, int count) {
        return decoder().row(packed.array(place), PackedBytes.offset(place), count);
    }

    private ValueDecoder decoder() {
        return new ValueDecoder(names, true);
    }
}
