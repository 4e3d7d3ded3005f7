package dev.morphema.output;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/**
 * Bytes that wait: in memory while they are few, then in a temporary file. They can be read any
 * number of times, until they are deleted. Not thread-safe.
 */
public final class Spool extends OutputStream {
    private static final int MOST_IN_MEMORY = 8 << 20;

    private ByteArrayOutputStream memory = new ByteArrayOutputStream();
    private @Nullable TemporaryFile file;

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        if (file == null && memory.size() + length <= MOST_IN_MEMORY) {
            memory.write(bytes, offset, length);
            return;
        }
        if (file == null) {
            file = new TemporaryFile();
            file.append(memory.toByteArray(), 0, memory.size());
            memory = new ByteArrayOutputStream();
        }
        file.append(bytes, offset, length);
    }

    /** {@return all bytes, to be read} */
    public InputStream open() {
        return file == null ? new ByteArrayInputStream(memory.toByteArray()) : new Reading(file);
    }

    /** {@return how many bytes there are} */
    public long size() {
        return file == null ? memory.size() : file.size();
    }

    /** Forgets all bytes. */
    public void delete() {
        memory = new ByteArrayOutputStream();
        try {
            if (file != null) {
                file.close();
            }
        } catch (IOException e) {
            // a file in the system's temporary folder is all that is left
        }
    }

    private static final class Reading extends InputStream {
        private final TemporaryFile file;
        private long position;

        Reading(TemporaryFile file) {
            this.file = file;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            int more = (int) Math.min(length, file.size() - position);
            if (more <= 0) {
                return length == 0 ? 0 : -1;
            }
            file.read(position, into, offset, more);
            position += more;
            return more;
        }
    }
}
