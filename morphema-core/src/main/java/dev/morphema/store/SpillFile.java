package dev.morphema.store;

import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Rows of values outside of memory: first written, then read any number of times, in the same
 * order. Not thread-safe.
 */
public final class SpillFile {
    /** Rows go out when so many bytes have come together. */
    private static final int PIECE = 1 << 16;

    /** Before each row stands its length, in four bytes. */
    private static final int PREFIX = 4;

    /**
     * Some rows that follow one another in the scratch: where they begin and how many bytes they
     * take.
     */
    private record Extent(long position, long length) {}

    private final Scratch scratch;
    private final ValueNames names;
    private final List<Extent> extents = new ArrayList<>();
    private final ValueEncoder encoder;
    private byte[] piece = new byte[0];
    private int filled;

    SpillFile(Scratch scratch, ValueNames names) {
        this.scratch = scratch;
        this.names = names;
        this.encoder = new ValueEncoder(names);
    }

    public void add(@Nullable Value[] row) {
        encoder.clear();
        encoder.row(row);
        int length = encoder.length();
        if (piece.length - filled < PREFIX + length) {
            flush();
            if (piece.length < PREFIX + length) {
                piece = new byte[Math.max(PIECE, PREFIX + length)];
            }
        }
        for (int shift = 24; shift >= 0; shift -= 8) {
            piece[filled++] = (byte) (length >>> shift);
        }
        System.arraycopy(encoder.bytes(), 0, piece, filled, length);
        filled += length;
    }

    private void flush() {
        if (filled == 0) {
            return;
        }
        try {
            long position = scratch.size();
            scratch.append(piece, 0, filled);
            Extent last = extents.isEmpty() ? null : extents.get(extents.size() - 1);
            if (last != null && last.position() + last.length() == position) {
                extents.set(extents.size() - 1, new Extent(last.position(), last.length() + filled));
            } else {
                extents.add(new Extent(position, filled));
            }
        } catch (IOException e) {
            throw MemoryBudget.unusable(e);
        }
        filled = 0;
    }

    /** No more rows are added. */
    public void complete() {
        flush();
        piece = new byte[0];
    }

    /**
     * {@return a reader of all rows from the first on}
     *
     * @param readAhead how many bytes are read at once, about
     */
    public Reader read(int readAhead) {
        complete();
        return new Reader(readAhead);
    }

    /** Goes through the rows once. */
    public final class Reader {
        private final ValueDecoder decoder = new ValueDecoder(names, false);
        private byte[] buffer;
        private int at;
        private int row;
        private int end;
        private int extent;
        private long done;

        private Reader(int readAhead) {
            this.buffer = new byte[readAhead];
        }

        /** {@return the next row, or null after the last} */
        @Nullable
        public Value @Nullable [] next() {
            return advance() ? row() : null;
        }

        /** Goes to the next row, without making its values; says whether there is one. */
        boolean advance() {
            if (!have(PREFIX)) {
                return false;
            }
            int length = 0;
            for (int i = 0; i < PREFIX; i++) {
                length = length << 8 | buffer[at + i] & 0xFF;
            }
            if (!have(PREFIX + length)) {
                throw new IllegalStateException("a row ends too early");
            }
            at += PREFIX + length;
            row = at - length;
            return true;
        }

        /** {@return the first values of the row at hand} */
        @Nullable
        Value[] row(int count) {
            return decoder.row(buffer, row, count);
        }

        /** {@return the row at hand} */
        @Nullable
        Value[] row() {
            return decoder.row(buffer, row);
        }

        /** Sees to it that the next bytes are in the buffer; says whether there are that many. */
        private boolean have(int wanted) {
            if (end - at >= wanted) {
                return true;
            }
            byte[] target = buffer.length >= wanted ? buffer : new byte[Math.max(wanted, buffer.length)];
            System.arraycopy(buffer, at, target, 0, end - at);
            end -= at;
            at = 0;
            buffer = target;
            while (end < buffer.length && extent < extents.size()) {
                fill();
            }
            return end >= wanted;
        }

        private void fill() {
            Extent from = extents.get(extent);
            int length = (int) Math.min(buffer.length - end, from.length() - done);
            try {
                scratch.read(from.position() + done, buffer, end, length);
            } catch (IOException e) {
                throw MemoryBudget.unusable(e);
            }
            end += length;
            done += length;
            if (done == from.length()) {
                extent++;
                done = 0;
            }
        }
    }

    /** {@return a row with values in front of it} */
    static @Nullable Value[] row(@Nullable Value[] front, @Nullable Value[] rest) {
        @Nullable Value[] row = Arrays.copyOf(front, front.length + rest.length);
        System.arraycopy(rest, 0, row, front.length, rest.length);
        return row;
    }
}
