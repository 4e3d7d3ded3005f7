package dev.morphema;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/** Bytes that wait: in memory while they are few, then in a temporary file. Not thread-safe. */
final class Spool extends OutputStream {
    private static final int MOST_IN_MEMORY = 8 << 20;

    private ByteArrayOutputStream memory = new ByteArrayOutputStream();
    private @Nullable Path file;
    private @Nullable OutputStream fileBytes;

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        if (fileBytes != null) {
            fileBytes.write(bytes, offset, length);
        } else if (memory.size() + length <= MOST_IN_MEMORY) {
            memory.write(bytes, offset, length);
        } else {
            file = Files.createTempFile("morphema", ".part");
            fileBytes = Files.newOutputStream(file);
            memory.writeTo(fileBytes);
            memory = new ByteArrayOutputStream();
            fileBytes.write(bytes, offset, length);
        }
    }

    @Override
    public void close() throws IOException {
        if (fileBytes != null) {
            fileBytes.close();
        }
    }

    /** Copies all bytes, then forgets them. */
    void copyTo(OutputStream out) throws IOException {
        close();
        try {
            if (file != null) {
                Files.copy(file, out);
            } else {
                memory.writeTo(out);
            }
        } finally {
            delete();
        }
    }

    /** {@return all bytes, to be read; any number of times} */
    InputStream open() throws IOException {
        close();
        return file == null ? new ByteArrayInputStream(memory.toByteArray()) : Files.newInputStream(file);
    }

    /** {@return how many bytes there are} */
    long size() throws IOException {
        close();
        return file == null ? memory.size() : Files.size(file);
    }

    /** Forgets all bytes. */
    void delete() {
        memory = new ByteArrayOutputStream();
        try {
            close();
            if (file != null) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            // a file in the system's temporary folder is all that is left
        }
    }
}
