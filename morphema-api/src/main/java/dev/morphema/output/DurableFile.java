package dev.morphema.output;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;

/**
 * A new file that is on the disk when it is closed, not only with the system. Not thread-safe.
 */
final class DurableFile extends OutputStream {
    private static final int BUFFER = 1 << 14;

    /** What a system says that cannot flush folders. */
    private static final String NOT_FOR_FOLDERS = "Invalid argument";

    private final FileChannel channel;
    private final OutputStream bytes;
    private boolean closed;

    private DurableFile(FileChannel channel, OutputStream bytes) {
        this.channel = channel;
        this.bytes = bytes;
    }

    /** {@return a new file} */
    static DurableFile of(Path file) throws IOException {
        FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        return new DurableFile(channel, new BufferedOutputStream(Channels.newOutputStream(channel), BUFFER));
    }

    /**
     * {@return a new file of an output}, compressed (RFC 1952) if the name of its place ends in .gz
     */
    static DurableFile of(Path file, Path place) throws IOException {
        DurableFile plain = of(file);
        return place.toString().endsWith(".gz")
                ? new DurableFile(plain.channel, new GZIPOutputStream(plain.bytes, BUFFER))
                : plain;
    }

    /** Has the names of a folder written to the disk, where the system can do that. */
    static void flushNames(Path folder) throws IOException {
        FileChannel opened;
        try {
            opened = FileChannel.open(folder, StandardOpenOption.READ);
        } catch (IOException e) {
            // Some systems open no folders, and some folders may only be written to.
            return;
        }
        try (opened) {
            opened.force(true);
        } catch (IOException e) {
            if (!NOT_FOR_FOLDERS.equals(e.getMessage())) {
                throw e;
            }
        }
    }

    /** As {@link #flushNames}, for a folder and all below it. */
    static void flushAllNames(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path below : (Iterable<Path>) all.filter(Files::isDirectory)::iterator) {
                flushNames(below);
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    @Override
    public void write(int b) throws IOException {
        bytes.write(b);
    }

    @Override
    public void write(byte[] from, int offset, int length) throws IOException {
        bytes.write(from, offset, length);
    }

    @Override
    public void flush() throws IOException {
        bytes.flush();
    }

    @Override
    public void close() throws IOException {
        if (closed) {
            return;
        }
        closed = true;
        try (channel) {
            if (bytes instanceof GZIPOutputStream compressed) {
                compressed.finish();
            }
            bytes.flush();
            channel.force(true);
        }
    }
}
