package dev.morphema.store;

import dev.morphema.value.EightBytes;
import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Very many rows by their keys, as bytes one behind the other, each behind its key: with keys in
 * any order each look at another object would be one at another place of the memory, which takes
 * longer than all that is done with it. A row that is taken out is made anew each time. Not
 * thread-safe while rows are added; then safe for use by many threads.
 */
final class PackedRows {
    // Before each row stand the two numbers of its key, which of the others is what they do not
    // tell, counted from 1,
    // or 0,
    // and how long the row is.
    private static final int SECOND = Long.BYTES;
    private static final int OTHER = 2 * Long.BYTES;
    private static final int HEAD = 3 * Long.BYTES;

    /** The rows by the hashes of their keys. */
    private final Places places = new Places();

    private final ValueNames names = new ValueNames();
    private final ValueEncoder encoder = new ValueEncoder(names);
    private final PackedBytes packed = new PackedBytes();

    /** What numbers do not tell of a key. */
    private final List<Object> others = new ArrayList<>();

    /** {@return the row of a key, or null} */
    @Nullable
    Value find(KeyCode key) {
        int hash = key.hash();
        for (int place = places.first(hash); place >= 0; place = places.next(hash, place)) {
            int row = places.number(place);
            byte[] bytes = packed.array(row);
            int at = PackedBytes.offset(row);
            if (isOf(key, bytes, at)) {
                return row(bytes, at);
            }
        }
        return null;
    }

    private boolean isOf(KeyCode key, byte[] bytes, int at) {
        return EightBytes.at(bytes, at) == key.first()
                && EightBytes.at(bytes, at + SECOND) == key.second()
                // Only a text that is not empty has something in its second number.
                && (key.second() != 0 || isOfOther(key, (int) EightBytes.at(bytes, at + OTHER)));
    }

    private boolean isOfOther(KeyCode key, int number) {
        return number == 0 ? key.other() == null : others.get(number - 1).equals(key.other());
    }

    private Value row(byte[] bytes, int at) {
        return new ValueDecoder(names, true).value(bytes, at + HEAD);
    }

    /** Adds the row of a key that is not there yet. */
    void add(KeyCode key, Value row) {
        encoder.clear();
        encoder.add(row);
        int length = encoder.length();
        int place = packed.add(HEAD + length);
        byte[] bytes = packed.array(place);
        int at = PackedBytes.offset(place);
        Object other = key.kept();
        if (other != null) {
            others.add(other);
        }
        EightBytes.put(bytes, at, key.first());
        EightBytes.put(bytes, at + SECOND, key.second());
        EightBytes.put(bytes, at + OTHER, (long) length << Integer.SIZE | (other == null ? 0 : others.size()));
        System.arraycopy(encoder.bytes(), 0, bytes, at + HEAD, length);
        places.add(key.hash(), place);
    }

    /** Gives all rows, in the order in which they were added. */
    void each(Consumer<Value> taker) {
        for (byte[] bytes : packed.arrays()) {
            int length;
            for (int at = 0; (length = lengthAt(bytes, at)) > 0; at = PackedBytes.after(at, HEAD + length)) {
                taker.accept(row(bytes, at));
            }
        }
    }

    /** {@return how long the row is at a place of an array, 0 after the last} */
    private static int lengthAt(byte[] bytes, int at) {
        return at + HEAD > bytes.length ? 0 : (int) (EightBytes.at(bytes, at + OTHER) >>> Integer.SIZE);
    }
}
