package dev.morphema.format;

import dev.morphema.problem.InputLocation;
import java.io.IOException;
import java.io.InputStream;
import java.util.zip.GZIPInputStream;

/**
 * Decompresses (RFC 1952), as long as that does not become far more than there was. Not
 * thread-safe.
 */
public final class GrowingStream extends CountingStream {
    private static final int BUFFER = 1 << 16;
    /** So much is harmless however little it was made of. */
    private static final long HARMLESS = 64L << 20;

    private final String name;
    private final Compressed compressed;
    private final long growth;
    private final Limits limits;

    private GrowingStream(String name, Compressed compressed, Limits limits) throws IOException {
        super(new GZIPInputStream(compressed, BUFFER));
        this.name = name;
        this.compressed = compressed;
        this.limits = limits;
        this.growth = limits.most(Limit.GROWTH);
    }

    /** {@return what some compressed bytes become} */
    public static InputStream of(String name, InputStream compressed, Limits limits) throws IOException {
        return new GrowingStream(name, new Compressed(compressed), limits);
    }

    @Override
    protected void counted(int more) {
        if (count() > HARMLESS && count() / growth > compressed.count()) {
            throw limits.exceeded(Limit.GROWTH, InputLocation.at(name, 0, 0));
        }
    }

    private static final class Compressed extends CountingStream {
        Compressed(InputStream in) {
            super(in);
        }

        @Override
        protected void counted(int more) {
            // how many there are is all that is asked
        }
    }
}
