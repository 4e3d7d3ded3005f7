package dev.morphema.formats;

import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;

/** Tells whether a text comes back from an encoding as it was. Not thread-safe. */
public final class RoundTrip {
    private final Charset charset;
    private final CharsetEncoder encoder;

    /** @param charset able to encode */
    public RoundTrip(Charset charset) {
        this.charset = charset;
        this.encoder = charset.newEncoder();
    }

    /** {@return whether the encoding has all characters of a text, and gives each of them back} */
    public boolean survives(String text) {
        return encoder.canEncode(text) && new String(text.getBytes(charset), charset).equals(text);
    }
}
