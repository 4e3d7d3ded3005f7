package dev.morphema.formats;

import java.io.IOException;
import java.io.InputStream;
import java.io.PushbackInputStream;
import java.io.Reader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;

/**
 * From bytes to characters. Bytes that are none in the encoding are a failure, never a replacement
 * character.
 */
public final class Decoding {
    private static final int LONGEST_MARK = 4;

    private Decoding() {}

    /**
     * {@return how a source states its encoding, where neither the format nor the input does}
     *
     * @param wrong the encoding that it is not
     */
    public static String help(Charset wrong) {
        String other = wrong.equals(StandardCharsets.UTF_8) ? "windows-1252" : "utf-8";
        return "a source in another encoding names it: encoding = \"" + other + "\"";
    }

    /**
     * {@return the characters of a stream}
     *
     * <p>A byte order mark of UTF-8 or UTF-16 at the start is dropped, and decides the encoding.
     *
     * @param bytes closed with the reader
     * @param charset the encoding where there is no byte order mark
     * @throws IOException if reading fails; later a {@link WrongBytesException}
     */
    public static Reader reader(InputStream bytes, Charset charset) throws IOException {
        return start(bytes, charset).characters();
    }

    /**
     * The bytes of a document after its byte order mark.
     *
     * @param bytes what is left
     * @param charset their encoding
     * @param mark how many bytes the byte order mark has
     */
    public record Start(InputStream bytes, Charset charset, int mark) {
        /** {@return the characters of the bytes; wrong bytes are a {@link WrongBytesException}} */
        public Reader characters() {
            return new StrictReader(bytes, charset);
        }
    }

    /**
     * {@return a document after its byte order mark, if it has one, which decides the encoding}
     *
     * @param bytes closed with those that are left
     * @param charset the encoding where there is no byte order mark
     * @throws IOException if reading fails
     */
    public static Start start(InputStream bytes, Charset charset) throws IOException {
        byte[] start = bytes.readNBytes(LONGEST_MARK);
        Charset decided = charset;
        int mark = 0;
        if (start.length >= 3 && start[0] == (byte) 0xEF && start[1] == (byte) 0xBB && start[2] == (byte) 0xBF) {
            decided = StandardCharsets.UTF_8;
            mark = 3;
        } else if (start.length >= 4
                && start[0] == (byte) 0xFF
                && start[1] == (byte) 0xFE
                && start[2] == 0
                && start[3] == 0) {
            decided = Charset.forName("UTF-32LE");
            mark = 4;
        } else if (start.length >= 2 && start[0] == (byte) 0xFF && start[1] == (byte) 0xFE) {
            decided = StandardCharsets.UTF_16LE;
            mark = 2;
        } else if (start.length >= 2 && start[0] == (byte) 0xFE && start[1] == (byte) 0xFF) {
            decided = StandardCharsets.UTF_16BE;
            mark = 2;
        }
        PushbackInputStream in = new PushbackInputStream(bytes, LONGEST_MARK);
        in.unread(start, mark, start.length - mark);
        return new Start(in, decided, mark);
    }
}
