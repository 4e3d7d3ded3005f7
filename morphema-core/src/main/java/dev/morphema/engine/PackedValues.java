package dev.morphema.engine;

import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import java.util.ArrayList;
import java.util.List;

/**
 * Values as bytes, one behind the other: a record is some ten objects, each at a place of its own of the memory, and so takes
 * far longer to come by when there are many. What is taken out is made anew each time. Not thread-safe while values are
 * added; then safe for use by many threads.
 */
final class PackedValues {
    private static final int CHUNK = 1 << 17;

    private final ValueNames names = new ValueNames();
    private final ValueEncoder encoder = new ValueEncoder(names);
    private final List<byte[]> chunks = new ArrayList<>();
    /** How much of the last chunk is taken. */
    private int filled = CHUNK;

    /** Adds a value; {@return its place}. */
    long add(Value value) {
        encoder.clear();
        encoder.add(value);
        int length = encoder.length();
        if (chunks.isEmpty() || chunks.get(chunks.size() - 1).length - filled < length) {
            chunks.add(new byte[Math.max(CHUNK, length)]);
            filled = 0;
        }
        int last = chunks.size() - 1;
        System.arraycopy(encoder.bytes(), 0, chunks.get(last), filled, length);
        long place = (long) last << Integer.SIZE | filled;
        filled += length;
        return place;
    }

    /** {@return the value at a place} */
    Value get(long place) {
        return new ValueDecoder(names, true).value(chunks.get((int) (place >>> Integer.SIZE)), (int) place);
    }
}
