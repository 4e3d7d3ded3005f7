package dev.morphema.xml;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;

/**
 * Takes XML in UTF-8 and passes it on in another encoding; a character that this lacks becomes a
 * reference (XML 1.0, section 4.1), which is right wherever names are known to have none. Not
 * thread-safe.
 */
final class ReferencingEncoder extends OutputStream {
    private static final int SIZE = 1 << 12;

    private final OutputStream out;
    private final CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
    private final CharsetEncoder encoder;
    private final CharBuffer chars = CharBuffer.allocate(SIZE);
    /** Bytes that wait for more: the start of a character. */
    private ByteBuffer waiting = ByteBuffer.allocate(0);

    ReferencingEncoder(OutputStream out, Charset encoding) {
        this.out = out;
        this.encoder = encoding.newEncoder();
    }

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        ByteBuffer all = ByteBuffer.allocate(waiting.remaining() + length);
        all.put(waiting).put(bytes, offset, length).flip();
        while (true) {
            boolean full = decoder.decode(all, chars, false).isOverflow();
            chars.flip();
            encode();
            if (!full) {
                break;
            }
        }
        waiting = all;
    }

    private void encode() throws IOException {
        while (chars.hasRemaining()) {
            ByteBuffer encoded = ByteBuffer.allocate((int) (chars.remaining() * encoder.maxBytesPerChar()) + 8);
            var result = encoder.encode(chars, encoded, false);
            out.write(encoded.array(), 0, encoded.position());
            if (result.isUnmappable()) {
                char first = chars.get();
                int code = Character.isHighSurrogate(first) ? Character.toCodePoint(first, chars.get()) : first;
                out.write(("&#" + code + ";").getBytes(encoder.charset()));
            } else if (result.isUnderflow()) {
                break;
            }
        }
        chars.compact();
    }

    @Override
    public void flush() throws IOException {
        out.flush();
    }
}
