package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/**
 * Characters are told from other bytes as Java's decoder does, but for the two codes that are no
 * characters.
 */
class Utf8Test {
    private static int length(int... bytes) {
        byte[] all = new byte[bytes.length];
        for (int i = 0; i < all.length; i++) {
            all[i] = (byte) bytes[i];
        }
        return Utf8.length(all, 0, all.length);
    }

    /** What Java reads from some bytes, as one character; or 0. */
    private static int decoded(byte[] bytes, int count) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes, 0, count))
                    .toString();
            boolean one = text.codePointCount(0, text.length()) == 1;
            return one && !"\uFFFE\uFFFF".contains(text) ? count : 0;
        } catch (CharacterCodingException e) {
            return 0;
        }
    }

    @Test
    void everyCharacterIsOne() {
        for (int code = 0x80; code <= 0x10FFFF; code++) {
            boolean surrogate = code >= 0xD800 && code <= 0xDFFF;
            if (!surrogate) {
                byte[] bytes = ("x" + Character.toString(code) + "y").getBytes(StandardCharsets.UTF_8);
                int expected = code == 0xFFFE || code == 0xFFFF ? 0 : bytes.length - 2;
                assertThat(Utf8.length(bytes, 1, bytes.length)).isEqualTo(expected);
                assertThat(Utf8.length(bytes, 1, bytes.length - 1)).isEqualTo(expected);
                assertThat(Utf8.length(bytes, 1, bytes.length - 2)).isZero();
            }
        }
    }

    @Test
    void otherBytesAreNone() {
        byte[] bytes = new byte[4];
        int[] edges = {0x00, 0x7F, 0x80, 0x8F, 0x90, 0x9F, 0xA0, 0xBE, 0xBF, 0xC0, 0xFF};
        for (int first = 0x80; first <= 0xFF; first++) {
            for (int second : edges) {
                for (int third : edges) {
                    bytes[0] = (byte) first;
                    bytes[1] = (byte) second;
                    bytes[2] = (byte) third;
                    bytes[3] = (byte) 0x80;
                    int length = Math.max(decoded(bytes, 2), Math.max(decoded(bytes, 3), decoded(bytes, 4)));
                    assertThat(Utf8.length(bytes, 0, 4))
                            .as("%x %x %x", first, second, third)
                            .isEqualTo(length);
                }
            }
        }
        assertThat(length(0xED, 0xA0, 0x80)).isZero();
        assertThat(length(0xF4, 0x90, 0x80, 0x80)).isZero();
        assertThat(length(0xF0, 0x9F, 0x98, 0x00)).isZero();
    }

    @Test
    void aTextIsCharactersToItsEnd() {
        byte[] text = "aü€😀z".getBytes(StandardCharsets.UTF_8);
        assertThat(Utf8.isText(text, 0, text.length)).isTrue();
        assertThat(Utf8.isText(text, 2, text.length)).isFalse();
        assertThat(Utf8.isText(text, 1, 3)).isTrue();
        assertThat(Utf8.isText(text, 1, 2)).isFalse();
        assertThat(Utf8.isText(text, 3, 3)).isTrue();
    }
}
