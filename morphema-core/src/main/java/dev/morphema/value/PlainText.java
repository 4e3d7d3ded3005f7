package dev.morphema.value;

import java.nio.charset.StandardCharsets;

/** A text that is known to be plain, since its reader has looked at each character. Equal to any other of the same characters. */
public final class PlainText extends TextValue {
    private static final boolean[] PLAIN = new boolean[128];

    static {
        for (int c = ' '; c < 0x7F; c++) {
            PLAIN[c] = "\"'&<>\\".indexOf(c) < 0;
        }
    }

    private PlainText(String text) {
        super(text);
    }

    /** {@return whether a text with this character can be plain} */
    public static boolean allows(int character) {
        return character >= 0 && character < PLAIN.length && PLAIN[character];
    }

    /** {@return the text of some bytes, all of which are {@linkplain #allows allowed}} */
    public static PlainText of(byte[] ascii, int from, int to) {
        return new PlainText(new String(ascii, from, to - from, StandardCharsets.ISO_8859_1));
    }

    /** {@return the text of some characters, plain if all of them are allowed} */
    public static TextValue of(char[] characters, int from, int length) {
        if (length == 0) {
            return EMPTY;
        }
        boolean plain = true;
        for (int i = from; i < from + length && plain; i++) {
            char c = characters[i];
            plain = c < PLAIN.length && PLAIN[c];
        }
        String text = new String(characters, from, length);
        return plain ? new PlainText(text) : TextValue.of(text);
    }

    @Override
    public int mostBytes() {
        return text().length();
    }

    /** The method of String that is used here is deprecated for texts that are not Latin 1; for others it is the fastest. */
    @Override
    @SuppressWarnings("deprecation")
    public int printed(byte[] into, int from) {
        String text = text();
        int length = text.length();
        text.getBytes(0, length, into, from);
        return from + length;
    }
}
