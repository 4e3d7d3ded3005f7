package dev.morphema.value;

/** Turns letters of ASCII into the other case, eight at a time: there they differ in one bit. */
final class LetterCase {
    private static final int HIGHEST_BIT = 0x80;
    private static final int BETWEEN_CASES = 2;

    private LetterCase() {}

    /**
     * {@return a copy of some characters of ASCII in which no letter is in lower case}; they fill a
     * multiple of eight bytes.
     */
    static byte[] upper(byte[] ascii) {
        return turned(ascii, 'a', 'z');
    }

    /** As {@link #upper}, with no letter in upper case. */
    static byte[] lower(byte[] ascii) {
        return turned(ascii, 'A', 'Z');
    }

    private static byte[] turned(byte[] ascii, char first, char last) {
        // What is added brings the first letter, or what comes after the last, to the highest bit,
        // which ASCII has not.
        long fromFirst = EightBytes.all(HIGHEST_BIT - first);
        long afterLast = EightBytes.all(HIGHEST_BIT - last - 1);
        long highestBits = EightBytes.all(HIGHEST_BIT);
        byte[] turned = new byte[ascii.length];
        for (int i = 0; i < ascii.length; i += Long.BYTES) {
            long eight = EightBytes.at(ascii, i);
            long letters = eight + fromFirst & ~(eight + afterLast) & highestBits;
            EightBytes.put(turned, i, eight ^ letters >>> BETWEEN_CASES);
        }
        return turned;
    }
}
