package dev.morphema.xml;

import dev.morphema.value.Utf8;
import java.nio.charset.StandardCharsets;
import java.util.List;

/**
 * The characters that stand in a document otherwise than as one byte: references (XML 1.0, section
 * 4.1), and UTF-8.
 */
final class XmlReferences {
    private static final List<String> ENTITIES = List.of("amp", "lt", "gt", "quot", "apos");
    private static final String CHARACTERS = "&<>\"'";
    private static final int LONGEST = 10;
    private static final int BEYOND_ALL = Character.MAX_CODE_POINT + 1;

    private XmlReferences() {}

    /**
     * Adds one character beyond ASCII.
     *
     * @param limit where the bytes end that have been read
     * @return the place behind it, or -1 if it is not there as a whole, or is none
     */
    static int character(byte[] bytes, int place, int limit, XmlText into) {
        int length = Utf8.length(bytes, place, limit);
        if (length == 0) {
            return -1;
        }
        into.add(bytes, place, place + length);
        return place + length;
    }

    /** {@return whether what is no character at a place may be one when more has been read} */
    static boolean mayGoOn(int place, int limit) {
        return place + 4 > limit;
    }

    /**
     * Adds the character that a reference stands for.
     *
     * @param place of the ampersand
     * @param limit where the bytes end that have been read
     * @return the place behind it, or -1 if it is not there as a whole
     * @throws XmlByteTokens.Unusual if it is none that all documents have
     */
    static int reference(byte[] bytes, int place, int limit, XmlText into) {
        int end = place + 1;
        while (end < limit && bytes[end] != ';') {
            if (end - place > LONGEST || bytes[end] <= ' ') {
                throw new XmlByteTokens.Unusual();
            }
            end++;
        }
        if (end == limit) {
            return -1;
        }
        String name = new String(bytes, place + 1, end - place - 1, StandardCharsets.ISO_8859_1);
        int entity = ENTITIES.indexOf(name);
        into.addCharacter(entity >= 0 ? CHARACTERS.charAt(entity) : code(name));
        return end + 1;
    }

    private static int code(String name) {
        boolean hexadecimal = name.startsWith("#x");
        int begin = hexadecimal ? 2 : 1;
        if (!name.startsWith("#") || name.length() == begin) {
            throw new XmlByteTokens.Unusual();
        }
        int code = 0;
        for (int i = begin; i < name.length(); i++) {
            int digit = name.charAt(i) < 0x80 ? Character.digit(name.charAt(i), hexadecimal ? 16 : 10) : -1;
            if (digit < 0) {
                throw new XmlByteTokens.Unusual();
            }
            code = Math.min(BEYOND_ALL, code * (hexadecimal ? 16 : 10) + digit);
        }
        boolean allowed = code >= ' ' && code < 0xD800
                || code == '\t'
                || code == '\n'
                || code == '\r'
                || code >= 0xE000 && code < 0xFFFE
                || code >= 0x10000 && code < BEYOND_ALL;
        if (!allowed) {
            throw new XmlByteTokens.Unusual();
        }
        return code;
    }
}
