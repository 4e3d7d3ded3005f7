package dev.morphema.testing.files;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.Path;

/** An open file whose writes and flushes may fail. Closing never does, and releases the lock. */
final class FaultyChannel extends FileChannel {
    private final FileChannel real;
    private final Path path;
    private final Faults faults;

    FaultyChannel(FileChannel real, Path path, Faults faults) {
        this.real = real;
        this.path = path;
        this.faults = faults;
    }

    @Override
    public int read(ByteBuffer into) throws IOException {
        return real.read(into);
    }

    @Override
    public long read(ByteBuffer[] into, int offset, int length) throws IOException {
        return real.read(into, offset, length);
    }

    @Override
    public int read(ByteBuffer into, long position) throws IOException {
        return real.read(into, position);
    }

    @Override
    public int write(ByteBuffer from) throws IOException {
        faults.count("write", path);
        return real.write(from);
    }

    @Override
    public long write(ByteBuffer[] from, int offset, int length) throws IOException {
        faults.count("write", path);
        return real.write(from, offset, length);
    }

    @Override
    public int write(ByteBuffer from, long position) throws IOException {
        faults.count("write", path);
        return real.write(from, position);
    }

    @Override
    public void force(boolean metaData) throws IOException {
        faults.count("flush", path);
        real.force(metaData);
    }

    @Override
    public long position() throws IOException {
        return real.position();
    }

    @Override
    public FileChannel position(long position) throws IOException {
        real.position(position);
        return this;
    }

    @Override
    public long size() throws IOException {
        return real.size();
    }

    @Override
    public FileChannel truncate(long size) throws IOException {
        real.truncate(size);
        return this;
    }

    @Override
    public long transferTo(long position, long count, WritableByteChannel target) throws IOException {
        return real.transferTo(position, count, target);
    }

    @Override
    public long transferFrom(ReadableByteChannel source, long position, long count) throws IOException {
        faults.count("write", path);
        return real.transferFrom(source, position, count);
    }

    @Override
    public MappedByteBuffer map(MapMode mode, long position, long size) throws IOException {
        return real.map(mode, position, size);
    }

    @Override
    public FileLock lock(long position, long size, boolean shared) throws IOException {
        return real.lock(position, size, shared);
    }

    @Override
    public FileLock tryLock(long position, long size, boolean shared) throws IOException {
        return real.tryLock(position, size, shared);
    }

    @Override
    protected void implCloseChannel() throws IOException {
        real.close();
    }
}
