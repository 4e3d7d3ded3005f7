package dev.morphema;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.InputLocation;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.zip.GZIPInputStream;

/** Decompresses (RFC 1952), as long as that does not become far more than there was. Not thread-safe. */
final class GrowingStream extends FilterInputStream {
    private static final int BUFFER = 1 << 16;
    /** So much is harmless however little it was made of. */
    private static final long HARMLESS = 64L << 20;

    private final String name;
    private final Compressed compressed;
    private final long growth;
    private final Limits limits;
    private long count;

    private GrowingStream(String name, Compressed compressed, Limits limits) throws IOException {
        super(new GZIPInputStream(compressed, BUFFER));
        this.name = name;
        this.compressed = compressed;
        this.limits = limits;
        this.growth = limits.most(Limit.GROWTH);
    }

    /** {@return what some compressed bytes become} */
    static InputStream of(String name, InputStream compressed, Limits limits) throws IOException {
        return new GrowingStream(name, new Compressed(compressed), limits);
    }

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
        if (count > HARMLESS && count / growth > compressed.count) {
            throw limits.exceeded(Limit.GROWTH, InputLocation.at(name, 0, 0));
        }
    }

    private static final class Compressed extends FilterInputStream {
        private long count;

        Compressed(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int b = in.read();
            count += b < 0 ? 0 : 1;
            return b;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            int read = in.read(into, offset, length);
            count += Math.max(read, 0);
            return read;
        }
    }
}
