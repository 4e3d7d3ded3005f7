package dev.morphema.output;

import dev.morphema.store.Scratch;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * Bytes in a temporary file, which is made when the first come. Where the system lets a file lose
 * its name while it is open, it does so at once, and nothing is left even of a run that is killed.
 */
public final class TemporaryFile implements Scratch {
    private @Nullable FileChannel channel;
    private long size;

    @Override
    public void append(byte[] bytes, int from, int length) throws IOException {
        try {
            if (channel == null) {
                channel = opened();
            }
            ByteBuffer buffer = ByteBuffer.wrap(bytes, from, length);
            while (buffer.hasRemaining()) {
                size += channel.write(buffer, size);
            }
        } catch (IOException e) {
            throw new IOException(FileFaults.reason(e) + " (" + System.getProperty("java.io.tmpdir") + ")", e);
        }
    }

    private static FileChannel opened() throws IOException {
        Path file = Files.createTempFile("morphema", ".held");
        FileChannel opened = FileChannel.open(
                file, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.DELETE_ON_CLOSE);
        try {
            Files.delete(file);
        } catch (IOException e) {
            // then it goes when it is closed
        }
        return opened;
    }

    @Override
    public long size() {
        return size;
    }

    @Override
    public void read(long position, byte[] into, int from, int length) throws IOException {
        ByteBuffer buffer = ByteBuffer.wrap(into, from, length);
        while (buffer.hasRemaining()) {
            if (channel == null || channel.read(buffer, position + buffer.position() - from) < 0) {
                throw new EOFException("the temporary file is shorter than what was written to it");
            }
        }
    }

    @Override
    public void close() throws IOException {
        if (channel != null) {
            channel.close();
        }
    }
}
