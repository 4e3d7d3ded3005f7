package dev.morphema.store;

import dev.morphema.value.Comparison;
import dev.morphema.value.EightBytes;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.Hashing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * What a group is looked up by. A short text, the most common key, is two numbers, so that groups
 * are compared without a look at their texts, which lie somewhere in the memory; longer texts, and
 * more than one, are looked up as bytes. Not thread-safe; used again for each look-up.
 */
public final class KeyCode {
    /** A longer text is looked up by itself; the sixteenth byte has the length. */
    private static final int LONGEST = 15;

    private long first;
    private long second;
    /** The key itself where it is no short text: its texts, or another object. */
    private @Nullable Object other;

    /** Made when the first such texts come: most keys are short. */
    private @Nullable TextKey texts;

    /** Takes the only value of a key. */
    public void set(Value value) {
        if (!(value instanceof TextValue text)) {
            setOther(Comparison.key(value));
        } else if (!(text.isPlain() ? packPlain(text) : pack(text.text()))) {
            setTexts(value);
        }
    }

    /** Takes the values of a key. */
    public void set(Value[] values) {
        if (values.length == 1) {
            set(values[0]);
        } else {
            setTexts(values);
        }
    }

    private void setTexts(Value... values) {
        TextKey key = emptyTexts();
        for (Value value : values) {
            if (!(value instanceof TextValue text) || !key.add(text)) {
                setOther(Comparison.key(values));
                return;
            }
        }
        setTexts(key);
    }

    private TextKey emptyTexts() {
        if (texts == null) {
            texts = new TextKey();
        }
        texts.clear();
        return texts;
    }

    private void setTexts(TextKey key) {
        other = key;
        first = key.mixed();
        second = 0;
    }

    private void setOther(Object key) {
        other = key;
        first = key.hashCode();
        second = 0;
    }

    /**
     * Takes fields of a record, all of which are plain texts; gives the same as for their values.
     */
    public void set(FieldBytes plain, int[] slots) {
        int slot = slots[0];
        if (slots.length > 1 || !pack(plain.array(), plain.from(slot), plain.to(slot))) {
            setTexts(plain, slots);
        }
    }

    private void setTexts(FieldBytes plain, int[] slots) {
        TextKey key = emptyTexts();
        for (int each : slots) {
            key.add(plain.array(), plain.from(each), plain.to(each));
        }
        setTexts(key);
    }

    private boolean pack(byte[] ascii, int from, int to) {
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
        return Hashing.of(first, second);
    }

    long first() {
        return first;
    }

    long second() {
        return second;
    }

    /** {@return the key where the two numbers are not all of it, until another is taken} */
    @Nullable
    Object other() {
        return other;
    }

    /** {@return as {@link #other}, but for good} */
    @Nullable
    Object kept() {
        return other instanceof TextKey key ? key.copy() : other;
    }
}
