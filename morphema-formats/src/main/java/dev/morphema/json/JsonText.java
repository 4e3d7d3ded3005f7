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

    private JsonText() {}

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
     * @throws ByteTokens.BadJson if there are bytes that are no characters, or an escape that is none
     */
    static String of(byte[] bytes, int from, int to, int kinds) {
        if (kinds <= ASCII) {
            return new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
        }
        String text = decoded(bytes, from, to);
        return (kinds & ESCAPED) == 0 ? text : unescaped(text);
    }

    private static String decoded(byte[] bytes, int from, int to) {
        String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
        if (text.indexOf('\uFFFD') >= 0) {
            try {
                StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, from, to - from));
            } catch (CharacterCodingException e) {
                throw new ByteTokens.BadJson();
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
                int known = "\"\\/bfnrt".indexOf(escape);
                if (known < 0) {
                    throw new ByteTokens.BadJson();
                }
                out.append("\"\\/\b\f\n\r\t".charAt(known));
            }
        }
        return out.toString();
    }

    private static char unit(String text, int from) {
        int unit = 0;
        for (int i = from; i < from + 4; i++) {
            int digit = i < text.length() && text.charAt(i) < 0x80 ? Character.digit(text.charAt(i), 16) : -1;
            if (digit < 0) {
                throw new ByteTokens.BadJson();
            }
            unit = unit << 4 | digit;
        }
        return (char) unit;
    }
}
