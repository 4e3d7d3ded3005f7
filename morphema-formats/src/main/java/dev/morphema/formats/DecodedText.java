package dev.morphema.formats;

import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.charset.Charset;

/**
 * The whole text of a document, which is written back as it was encoded. Immutable.
 *
 * @param text without a byte order mark
 * @param charset its encoding
 * @param marked whether it begins with a byte order mark
 */
public record DecodedText(String text, Charset charset, boolean marked) {
    /**
     * {@return the text of a document}
     *
     * @param name of the document
     * @throws ProblemException if it has bytes that are none of its encoding
     * @throws IOException if it cannot be read
     */
    public static DecodedText of(Decoding.Start start, String name) throws IOException {
        StringWriter text = new StringWriter();
        try (Reader characters = start.characters()) {
            characters.transferTo(text);
        } catch (WrongBytesException e) {
            throw new ProblemException(e.problem(name, Decoding.help(start.charset())), e);
        }
        return new DecodedText(text.toString(), start.charset(), start.mark() > 0);
    }

    /** {@return another text in the encoding of this one} */
    public byte[] encoded(String other) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        if (marked) {
            bytes.write("\uFEFF".getBytes(charset));
        }
        bytes.write(other.getBytes(charset));
        return bytes.toByteArray();
    }
}
