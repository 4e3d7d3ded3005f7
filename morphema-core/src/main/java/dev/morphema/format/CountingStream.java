package dev.morphema.format;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** A stream of which it is counted how much was read. Not thread-safe. */
public abstract class CountingStream extends FilterInputStream {
    private long count;

    protected CountingStream(InputStream in) {
        super(in);
    }

    /** {@return how many bytes were read so far} */
    public final long count() {
        return count;
    }

    /** So many more bytes were read, which are counted already. */
    protected abstract void counted(int more);

    @Override
    public int read() throws IOException {
        int b = in.read();
        count(b < 0 ? 0 : 1);
        return b;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
        int read = in.read(into, offset, length);
        count(Math.max(read, 0));
        return read;
    }

    private void count(int more) {
        count += more;
        counted(more);
    }
}
