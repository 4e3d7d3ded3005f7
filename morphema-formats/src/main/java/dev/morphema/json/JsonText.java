package dev.morphema.json;

import dev.morphema.value.TextValue;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;

/** The texts of JSON (RFC 8259, section 7) from their bytes in UTF-8. */
final class JsonText {
    // What there is in a text beside plain characters.
    static final int ASCII = 1;
    static final int OTHER = 2;
    static final int ESCAPED = 4;

    /** What may follow a backslash, beside u and four digits. */
    private static final String ESCAPES = "\"\\/bfnrt";

    private static final String ESCAPED_CHARACTERS = "\"\\/\b\f\n\r\t";

    private JsonText() {}

    /**
     * Half of a surrogate pair stands in a text or name; RFC 8259, section 8.2, leaves open what
     * that means.
     */
    static final class HalfCharacter extends RuntimeException {
        private static final long serialVersionUID = 1L;

        HalfCharacter() {
            super(null, null, false, false);
        }
    }

    /** Refuses a text with half of a surrogate pair: no output could hold it. */
    static String whole(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (Character.isSurrogate(c)) {
                boolean pair = i + 1 < text.length() && Character.isSurrogatePair(c, text.charAt(i + 1));
                if (!pair) {
                    throw new HalfCharacter();
                }
                i++;
            }
        }
        return text;
    }

    /** {@return what a byte is that stands for itself} */
    static byte kind(int unsigned) {
        if (TextValue.isPlain(unsigned)) {
            return 0;
        }
        return (byte) (unsigned < 0x80 ? ASCII : OTHER);
    }

    /**
     * {@return the text between two quotes}
     *
     * @param kinds what there is in it, together
     * @throws JsonWindow.BadJson if there are bytes that are no characters, or an escape that is
     *     none
     */
    static String of(byte[] bytes, int from, int to, int kinds) {
        if (kinds <= ASCII) {
            return new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
        }
        String text = decoded(bytes, from, to);
        return (kinds & ESCAPED) == 0 ? text : unescaped(text);
    }

    /**
     * Refuses what {@link #of} would, without making the text.
     *
     * @throws JsonWindow.BadJson if there are bytes that are no characters, or an escape that is
     *     none
     */
    static void check(byte[] bytes, int from, int to, int kinds) {
        if ((kinds & OTHER) != 0) {
            decoded(bytes, from, to);
        }
        for (int i = from; i < to && (kinds & ESCAPED) != 0; i++) {
            if (bytes[i] == '\\') {
                i++;
                if (bytes[i] == 'u') {
                    for (int last = i + 4; i < last; i++) {
                        if (i + 1 >= to || hexadecimal(bytes[i + 1]) < 0) {
                            throw new JsonWindow.BadJson();
                        }
                    }
                } else if (ESCAPES.indexOf(bytes[i]) < 0) {
                    throw new JsonWindow.BadJson();
                }
            }
        }
    }

    /**
     * {@return the character that a backslash and this byte stand for, or -1 if they stand for
     * none, or not alone}
     */
    static int escaped(byte b) {
        int known = ESCAPES.indexOf(b);
        return known < 0 ? -1 : ESCAPED_CHARACTERS.charAt(known);
    }

    private static int hexadecimal(int c) {
        return c >= 0 && c < 0x80 ? Character.digit(c, 16) : -1;
    }

    private static String decoded(byte[] bytes, int from, int to) {
        String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
        if (text.indexOf('\uFFFD') >= 0) {
            try {
                StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, from, to - from));
            } catch (CharacterCodingException e) {
                throw new JsonWindow.BadJson();
            }
        }
        return text;
    }

    private static String unescaped(String text) {
        StringBuilder out = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '\\') {
                out.append(c);
                continue;
            }
            char escape = text.charAt(++i);
            if (escape == 'u') {
                out.append(unit(text, i + 1));
                i += 4;
            } else {
                int known = ESCAPES.indexOf(escape);
                if (known < 0) {
                    throw new JsonWindow.BadJson();
                }
                out.append(ESCAPED_CHARACTERS.charAt(known));
            }
        }
        return whole(out.toString());
    }

    private static char unit(String text, int from) {
        int unit = 0;
        for (int i = from; i < from + 4; i++) {
            int digit = i < text.length() ? hexadecimal(text.charAt(i)) : -1;
            if (digit < 0) {
                throw new JsonWindow.BadJson();
            }
            unit = unit << 4 | digit;
        }
        return (char) unit;
    }
}
