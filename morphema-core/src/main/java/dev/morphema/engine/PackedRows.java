package dev.morphema.engine;

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
 * Very many rows by their keys, as bytes one behind the other, each behind its key: with keys in any order each look at another
 * object would be one at another place of the memory, which takes longer than all that is done with it. A row that is taken
 * out is made anew each time. Not thread-safe while rows are added; then safe for use by many threads.
 */
final class PackedRows {
    private static final int CHUNK_BITS = 17;
    private static final int CHUNK = 1 << CHUNK_BITS;
    /** Rows begin at multiples of eight. */
    private static final int UNIT_BITS = 3;

    // Before each row stand the two numbers of its key, where the object is that the numbers do not tell, counted from
    // 1 and
    // 0 if there is none, and how long the row is.
    private static final int SECOND = Long.BYTES;
    private static final int OTHER = 2 * Long.BYTES;
    private static final int HEAD = 3 * Long.BYTES;

    /** Where the rows begin, in units, by the hashes of their keys. */
    private final Places units = new Places();

    private int size;

    private final ValueNames names = new ValueNames();
    private final ValueEncoder encoder = new ValueEncoder(names);
    private final List<byte[]> chunks = new ArrayList<>();
    /** How much of the last chunk is taken. */
    private int filled = CHUNK;

    /** What numbers do not tell of a key. */
    private final List<Object> others = new ArrayList<>();

    int size() {
        return size;
    }

    /** {@return the row of a key, or null} */
    @Nullable
    Value find(KeyCode key) {
        int hash = key.hash();
        for (int place = units.first(hash); place >= 0; place = units.next(hash, place)) {
            int unit = units.number(place);
            byte[] chunk = chunks.get(unit >>> CHUNK_BITS - UNIT_BITS);
            int at = (unit << UNIT_BITS) & CHUNK - 1;
            if (isOf(key, chunk, at)) {
                return row(chunk, at);
            }
        }
        return null;
    }

    private boolean isOf(KeyCode key, byte[] chunk, int at) {
        return EightBytes.at(chunk, at) == key.first()
                && EightBytes.at(chunk, at + SECOND) == key.second()
                // Only a text that is not empty has something in its second number.
                && (key.second() != 0 || isOfOther(key, (int) EightBytes.at(chunk, at + OTHER)));
    }

    private boolean isOfOther(KeyCode key, int number) {
        return number == 0 ? key.other() == null : others.get(number - 1).equals(key.other());
    }

    private Value row(byte[] chunk, int at) {
        return new ValueDecoder(names, true).value(chunk, at + HEAD);
    }

    /** Adds the row of a key that is not there yet. */
    void add(KeyCode key, Value row) {
        encoder.clear();
        encoder.add(row);
        int length = encoder.length();
        byte[] chunk = room(HEAD + length);
        int unit = (chunks.size() - 1 << CHUNK_BITS - UNIT_BITS) + (filled >>> UNIT_BITS);
        Object other = key.kept();
        if (other != null) {
            others.add(other);
        }
        EightBytes.put(chunk, filled, key.first());
        EightBytes.put(chunk, filled + SECOND, key.second());
        EightBytes.put(chunk, filled + OTHER, (long) length << Integer.SIZE | (other == null ? 0 : others.size()));
        System.arraycopy(encoder.bytes(), 0, chunk, filled + HEAD, length);
        filled = afterRow(filled, length);
        size++;
        units.add(key.hash(), unit);
    }

    /** {@return a chunk with room for so many bytes from the filled ones on, and some more that may be looked at} */
    private byte[] room(int needed) {
        if (chunks.isEmpty() || chunks.get(chunks.size() - 1).length - filled < needed + Long.BYTES) {
            chunks.add(new byte[Math.max(CHUNK, needed + Long.BYTES)]);
            filled = 0;
        }
        return chunks.get(chunks.size() - 1);
    }

    private static int afterRow(int at, int length) {
        return at + HEAD + length + (1 << UNIT_BITS) - 1 & -(1 << UNIT_BITS);
    }

    /** Gives all rows, in the order in which they were added. */
    void each(Consumer<Value> taker) {
        for (byte[] chunk : chunks) {
            int at = 0;
            while (at + HEAD < chunk.length) {
                int length = (int) (EightBytes.at(chunk, at + OTHER) >>> Integer.SIZE);
                if (length == 0) {
                    break;
                }
                taker.accept(row(chunk, at));
                at = afterRow(at, length);
            }
        }
    }
}
