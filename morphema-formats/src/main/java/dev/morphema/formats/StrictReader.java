package dev.morphema.formats;

import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;

/**
 * Decodes bytes and never replaces any. What stands before wrong bytes is given first; only then
 * comes a {@link WrongBytesException}, so that a parser has reported whatever is wrong before them.
 * Not thread-safe.
 */
final class StrictReader extends Reader {
    private static final int SIZE = 1 << 13;

    private final InputStream in;
    private final CharsetDecoder decoder;
    private final ByteBuffer bytes = ByteBuffer.allocate(SIZE);
    private final CharBuffer chars = CharBuffer.allocate(SIZE);
    private boolean ended;
    private boolean wrong;
    private boolean flushed;

    private long line = 1;
    private int column = 1;
    private boolean afterReturn;

    StrictReader(InputStream in, Charset charset) {
        this.in = in;
        this.decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        bytes.flip();
        chars.flip();
    }

    @Override
    public int read(char[] into, int offset, int length) throws IOException {
        if (length == 0) {
            return 0;
        }
        while (!chars.hasRemaining()) {
            if (wrong) {
                throw new WrongBytesException(decoder.charset(), line, column);
            }
            if (flushed) {
                return -1;
            }
            decode();
        }
        int count = Math.min(length, chars.remaining());
        chars.get(into, offset, count);
        countLines(into, offset, offset + count);
        return count;
    }

    private void decode() throws IOException {
        chars.clear();
        CoderResult result = decoder.decode(bytes, chars, ended);
        if (result.isUnderflow() && ended) {
            result = decoder.flush(chars);
            flushed = result.isUnderflow();
        }
        wrong = result.isError();
        chars.flip();
        if (result.isUnderflow() && !ended && !chars.hasRemaining()) {
            fill();
        }
    }

    private void fill() throws IOException {
        bytes.compact();
        int read = in.read(bytes.array(), bytes.position(), bytes.remaining());
        ended = read < 0;
        bytes.position(bytes.position() + Math.max(read, 0));
        bytes.flip();
    }

    private void countLines(char[] given, int from, int to) {
        for (int i = from; i < to; i++) {
            char c = given[i];
            if (c == '\n' && afterReturn) {
                column = 1;
            } else if (c == '\n' || c == '\r') {
                line++;
                column = 1;
            } else if (!Character.isLowSurrogate(c)) {
                column++;
            }
            afterReturn = c == '\r';
        }
    }

    @Override
    public boolean ready() throws IOException {
        return chars.hasRemaining() || bytes.hasRemaining() || in.available() > 0;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
