package dev.morphema.csv;

import dev.morphema.value.TextValue;
import dev.morphema.value.Utf8;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;

/** Makes texts of the bytes of cells. Safe for use by many threads. */
final class CellTexts {
    private final Charset charset;

    /** @param charset one in which a byte of ASCII stands for itself */
    CellTexts(Charset charset) {
        this.charset = charset;
    }

    /** {@return whether some bytes are a text in UTF-8, as they are} */
    boolean areUtf8(byte[] bytes, int from, int to) {
        return charset.equals(StandardCharsets.UTF_8) && Utf8.isText(bytes, from, to);
    }

    /**
     * Reads some bytes of which nobody wants the text.
     *
     * @throws CharacterCodingException if they are no characters
     */
    void check(byte[] bytes, int from, int to) throws CharacterCodingException {
        if (!areUtf8(bytes, from, to)) {
            text(bytes, from, to);
        }
    }

    /**
     * {@return the text of some bytes}
     *
     * @throws CharacterCodingException if they are no characters
     */
    TextValue text(byte[] bytes, int from, int to) throws CharacterCodingException {
        TextValue plain = TextValue.ifPlain(bytes, from, to);
        if (plain != null) {
            return plain;
        }
        String text = new String(bytes, from, to - from, charset);
        // The mark for what is no character may also have been written as such.
        return TextValue.of(
                text.indexOf('\uFFFD') < 0
                        ? text
                        : charset.newDecoder()
                                .decode(ByteBuffer.wrap(bytes, from, to - from))
                                .toString());
    }
}
