package dev.morphema.testing.files;

import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.nio.file.WatchService;
import java.nio.file.attribute.UserPrincipalLookupService;
import java.nio.file.spi.FileSystemProvider;
import java.util.Set;
import java.util.stream.StreamSupport;

/** The file system of the machine, with faults. */
final class FaultyFileSystem extends FileSystem {
    private final FileSystem real = FileSystems.getDefault();
    private final FaultyProvider provider;

    FaultyFileSystem(Faults faults) {
        this.provider = new FaultyProvider(this, real.provider(), faults);
    }

    FaultyPath wrapped(Path path) {
        return path instanceof FaultyPath faulty ? faulty : new FaultyPath(this, path);
    }

    static Path unwrapped(Path path) {
        return path instanceof FaultyPath faulty ? faulty.real() : path;
    }

    @Override
    public FileSystemProvider provider() {
        return provider;
    }

    @Override
    public void close() {
        throw new UnsupportedOperationException();
    }

    @Override
    public boolean isOpen() {
        return true;
    }

    @Override
    public boolean isReadOnly() {
        return false;
    }

    @Override
    public String getSeparator() {
        return real.getSeparator();
    }

    @Override
    public Iterable<Path> getRootDirectories() {
        return StreamSupport.stream(real.getRootDirectories().spliterator(), false)
                .map(path -> (Path) wrapped(path))
                .toList();
    }

    @Override
    public Iterable<FileStore> getFileStores() {
        return real.getFileStores();
    }

    @Override
    public Set<String> supportedFileAttributeViews() {
        return real.supportedFileAttributeViews();
    }

    @Override
    public Path getPath(String first, String... more) {
        return wrapped(real.getPath(first, more));
    }

    @Override
    public PathMatcher getPathMatcher(String syntaxAndPattern) {
        PathMatcher matcher = real.getPathMatcher(syntaxAndPattern);
        return path -> matcher.matches(unwrapped(path));
    }

    @Override
    public UserPrincipalLookupService getUserPrincipalLookupService() {
        return real.getUserPrincipalLookupService();
    }

    @Override
    public WatchService newWatchService() {
        throw new UnsupportedOperationException();
    }
}
