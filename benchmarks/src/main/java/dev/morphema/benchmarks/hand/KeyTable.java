package dev.morphema.benchmarks.hand;

import java.util.Arrays;

/**
 * Numbers texts in the order they come, without making an object of each: a hash table with open
 * addressing.
 */
final class KeyTable {
    private int[] slots = new int[1 << 12];
    private int[] hashes = new int[1 << 11];
    private int[] starts = new int[(1 << 11) + 1];
    private char[] chars = new char[1 << 15];
    private int count;

    int count() {
        return count;
    }

    char[] chars() {
        return chars;
    }

    int start(int number) {
        return starts[number];
    }

    int length(int number) {
        return starts[number + 1] - starts[number];
    }

    /** {@return the number of a text, or -1} */
    int find(char[] text, int offset, int length) {
        int hash = hash(text, offset, length);
        int at = slot(hash, text, offset, length);
        return slots[at] - 1;
    }

    /** {@return the number of a text, which is new if it is the count before} */
    int number(char[] text, int offset, int length) {
        int hash = hash(text, offset, length);
        int at = slot(hash, text, offset, length);
        if (slots[at] == 0) {
            add(hash, text, offset, length);
            slots[at] = count;
            if (count * 2 > slots.length) {
                grow();
            }
            return count - 1;
        }
        return slots[at] - 1;
    }

    private static int hash(char[] text, int offset, int length) {
        int hash = 0;
        for (int i = offset; i < offset + length; i++) {
            hash = hash * 31 + text[i];
        }
        return hash ^ hash >>> 15;
    }

    private int slot(int hash, char[] text, int offset, int length) {
        int at = hash & slots.length - 1;
        while (slots[at] != 0) {
            int number = slots[at] - 1;
            if (hashes[number] == hash
                    && Arrays.equals(chars, starts[number], starts[number + 1], text, offset, offset + length)) {
                return at;
            }
            at = at + 1 & slots.length - 1;
        }
        return at;
    }

    private void add(int hash, char[] text, int offset, int length) {
        if (count == hashes.length) {
            hashes = Arrays.copyOf(hashes, count * 2);
            starts = Arrays.copyOf(starts, count * 2 + 1);
        }
        int start = starts[count];
        if (start + length > chars.length) {
            chars = Arrays.copyOf(chars, Math.max(chars.length * 2, start + length));
        }
        System.arraycopy(text, offset, chars, start, length);
        hashes[count] = hash;
        starts[++count] = start + length;
    }

    private void grow() {
        slots = new int[slots.length * 2];
        for (int number = 0; number < count; number++) {
            int at = hashes[number] & slots.length - 1;
            while (slots[at] != 0) {
                at = at + 1 & slots.length - 1;
            }
            slots[at] = number + 1;
        }
    }
}
