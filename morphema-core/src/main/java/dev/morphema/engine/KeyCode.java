package dev.morphema.engine;

import dev.morphema.value.Comparison;
import dev.morphema.value.EightBytes;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * What a group is looked up by. A short text, the most common key, is two numbers, so that groups are compared without a
 * look at their texts, which lie somewhere in the memory. Not thread-safe; used again for each look-up.
 */
final class KeyCode {
    /** A longer text is looked up by itself; the sixteenth byte has the length. */
    private static final int LONGEST = 15;

    private static final long MIX = 0x9E3779B97F4A7C15L;

    private long first;
    private long second;
    /** The key itself where it is no short text. */
    private @Nullable Object other;

    /** Takes the only value of a key. */
    void set(Value value) {
        if (!(value instanceof TextValue text) || !(text.isPlain() ? packPlain(text) : pack(text.text()))) {
            setOther(Comparison.key(value));
        }
    }

    /** Takes the values of a key. */
    void set(Value[] values) {
        if (values.length == 1) {
            set(values[0]);
        } else {
            setOther(Stages.Keys.key(values));
        }
    }

    private void setOther(Object key) {
        other = key;
        first = key.hashCode();
        second = 0;
    }

    /**
     * Takes a text in ASCII; gives the same numbers as for its value.
     *
     * @param ascii with at least seven more bytes behind the text
     * @return whether it is short enough; if not, it must be taken as a value
     */
    boolean set(byte[] ascii, int from, int to) {
        int length = to - from;
        if (length > LONGEST) {
            return false;
        }
        first = packed(ascii, from, Math.min(length, Long.BYTES));
        second = (length > Long.BYTES ? packed(ascii, from + Long.BYTES, length - Long.BYTES) : 0) | length;
        other = null;
        return true;
    }

    private static long packed(byte[] ascii, int from, int length) {
        return Long.reverseBytes(EightBytes.first(EightBytes.at(ascii, from), length));
    }

    private boolean packPlain(TextValue text) {
        int length = text.length();
        if (length > LONGEST) {
            return false;
        }
        first = text.eightFrom(0);
        second = (length > Long.BYTES ? text.eightFrom(Long.BYTES) : 0) | length;
        other = null;
        return true;
    }

    /** Gives the same numbers as if the text were known to be plain. */
    private boolean pack(String text) {
        int length = text.length();
        if (length > LONGEST) {
            return false;
        }
        long low = 0;
        long high = length;
        for (int i = 0; i < length; i++) {
            char c = text.charAt(i);
            if (c > 0xFF) {
                return false;
            }
            int place = Long.SIZE - Byte.SIZE * (i % Long.BYTES + 1);
            if (i < Long.BYTES) {
                low |= (long) c << place;
            } else {
                high |= (long) c << place;
            }
        }
        first = low;
        second = high;
        other = null;
        return true;
    }

    int hash() {
        long mixed = (first + second * MIX) * MIX;
        return (int) (mixed >>> 32 ^ mixed >>> 57);
    }

    long first() {
        return first;
    }

    long second() {
        return second;
    }

    @Nullable
    Object other() {
        return other;
    }
}
