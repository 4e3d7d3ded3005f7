package dev.morphema.testing.files;

import java.io.IOException;
import java.net.URI;
import java.nio.file.FileSystem;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.WatchEvent;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;

/** A path of the machine, as one of the file system with faults. */
record FaultyPath(FaultyFileSystem files, Path real) implements Path {
    private Path wrapped(Path path) {
        return path == null ? null : files.wrapped(path);
    }

    @Override
    public FileSystem getFileSystem() {
        return files;
    }

    @Override
    public boolean isAbsolute() {
        return real.isAbsolute();
    }

    @Override
    public Path getRoot() {
        return wrapped(real.getRoot());
    }

    @Override
    public Path getFileName() {
        return wrapped(real.getFileName());
    }

    @Override
    public Path getParent() {
        return wrapped(real.getParent());
    }

    @Override
    public int getNameCount() {
        return real.getNameCount();
    }

    @Override
    public Path getName(int index) {
        return wrapped(real.getName(index));
    }

    @Override
    public Path subpath(int beginIndex, int endIndex) {
        return wrapped(real.subpath(beginIndex, endIndex));
    }

    @Override
    public boolean startsWith(Path other) {
        return real.startsWith(FaultyFileSystem.unwrapped(other));
    }

    @Override
    public boolean endsWith(Path other) {
        return real.endsWith(FaultyFileSystem.unwrapped(other));
    }

    @Override
    public Path normalize() {
        return wrapped(real.normalize());
    }

    @Override
    public Path resolve(Path other) {
        return wrapped(real.resolve(FaultyFileSystem.unwrapped(other)));
    }

    @Override
    public Path relativize(Path other) {
        return wrapped(real.relativize(FaultyFileSystem.unwrapped(other)));
    }

    @Override
    public URI toUri() {
        return real.toUri();
    }

    @Override
    public Path toAbsolutePath() {
        return wrapped(real.toAbsolutePath());
    }

    @Override
    public Path toRealPath(LinkOption... options) throws IOException {
        return wrapped(real.toRealPath(options));
    }

    @Override
    public WatchKey register(WatchService watcher, WatchEvent.Kind<?>[] events, WatchEvent.Modifier... modifiers) {
        throw new UnsupportedOperationException();
    }

    @Override
    public int compareTo(Path other) {
        return real.compareTo(FaultyFileSystem.unwrapped(other));
    }

    @Override
    public String toString() {
        return real.toString();
    }
}
