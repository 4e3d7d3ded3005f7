package dev.morphema.xml;

import dev.morphema.formats.RoundTrip;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Decides which encodings XML is written in: those in which markup and references of ASCII can
 * stand anywhere, and that give each character back as it was.
 */
final class XmlTargetEncoding {
    private static final Set<Charset> UNICODE = Set.of(
            StandardCharsets.UTF_8, StandardCharsets.UTF_16, StandardCharsets.UTF_16BE, StandardCharsets.UTF_16LE);

    private XmlTargetEncoding() {}

    /** {@return why an encoding cannot be written, or null if it can} */
    static @Nullable String fault(Charset charset) {
        if (UNICODE.contains(charset)) {
            return null;
        }
        boolean safe = hasAscii(charset) && isReversible(charset);
        return safe
                ? null
                : "XML is not written in " + charset.name()
                        + ", which changes some characters; UTF-8 has all characters, and every system reads it.";
    }

    private static boolean hasAscii(Charset charset) {
        for (char c = 0; c < 0x80; c++) {
            byte[] bytes = String.valueOf(c).getBytes(charset);
            if (bytes.length != 1 || bytes[0] != c) {
                return false;
            }
        }
        return true;
    }

    /**
     * Where the bytes of a character depend on those before it, a reference in the middle would be
     * another text.
     */
    private static boolean isWithoutState(String text, Charset charset) {
        return (text + text).getBytes(charset).length == 2 * text.getBytes(charset).length;
    }

    private static boolean isReversible(Charset charset) {
        RoundTrip trip = new RoundTrip(charset);
        CharsetEncoder encoder = charset.newEncoder();
        for (int c = 0; c <= Character.MAX_VALUE; c++) {
            boolean encodable = !Character.isSurrogate((char) c) && encoder.canEncode((char) c);
            String text = String.valueOf((char) c);
            if (encodable && !(trip.survives(text) && isWithoutState(text, charset))) {
                return false;
            }
        }
        return true;
    }
}
