package dev.morphema.testing.files;

import java.io.IOException;
import java.net.URI;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.AccessMode;
import java.nio.file.CopyOption;
import java.nio.file.DirectoryStream;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.LinkOption;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileAttributeView;
import java.nio.file.spi.FileSystemProvider;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The operations of the file system of the machine, each of which may fail. */
final class FaultyProvider extends FileSystemProvider {
    private final FaultyFileSystem files;
    private final FileSystemProvider real;
    private final Faults faults;

    FaultyProvider(FaultyFileSystem files, FileSystemProvider real, Faults faults) {
        this.files = files;
        this.real = real;
        this.faults = faults;
    }

    private static Path unwrapped(Path path) {
        return FaultyFileSystem.unwrapped(path);
    }

    @Override
    public String getScheme() {
        return "faulty";
    }

    @Override
    public FileSystem newFileSystem(URI uri, Map<String, ?> env) {
        throw new UnsupportedOperationException();
    }

    @Override
    public FileSystem getFileSystem(URI uri) {
        return files;
    }

    @Override
    public Path getPath(URI uri) {
        return files.wrapped(Path.of(uri));
    }

    @Override
    public SeekableByteChannel newByteChannel(
            Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes) throws IOException {
        return newFileChannel(path, options, attributes);
    }

    @Override
    public FileChannel newFileChannel(Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes)
            throws IOException {
        if (options.contains(StandardOpenOption.WRITE)) {
            faults.count("open", path);
        }
        return new FaultyChannel(real.newFileChannel(unwrapped(path), options, attributes), path, faults);
    }

    @Override
    public DirectoryStream<Path> newDirectoryStream(Path folder, DirectoryStream.Filter<? super Path> filter)
            throws IOException {
        faults.count("list", folder);
        List<Path> found = new ArrayList<>();
        try (DirectoryStream<Path> all = real.newDirectoryStream(unwrapped(folder), path -> true)) {
            for (Path path : all) {
                if (filter.accept(files.wrapped(path))) {
                    found.add(files.wrapped(path));
                }
            }
        }
        return new DirectoryStream<>() {
            @Override
            public Iterator<Path> iterator() {
                return found.iterator();
            }

            @Override
            public void close() {
                // everything is read
            }
        };
    }

    @Override
    public void createDirectory(Path folder, FileAttribute<?>... attributes) throws IOException {
        faults.count("make folder", folder);
        real.createDirectory(unwrapped(folder), attributes);
    }

    @Override
    public void createLink(Path link, Path existing) throws IOException {
        faults.count("link", link);
        real.createLink(unwrapped(link), unwrapped(existing));
    }

    @Override
    public Path readSymbolicLink(Path link) throws IOException {
        return files.wrapped(real.readSymbolicLink(unwrapped(link)));
    }

    @Override
    public void delete(Path path) throws IOException {
        faults.count("delete", path);
        real.delete(unwrapped(path));
    }

    @Override
    public void copy(Path source, Path target, CopyOption... options) throws IOException {
        faults.count("copy", target);
        real.copy(unwrapped(source), unwrapped(target), options);
    }

    @Override
    public void move(Path source, Path target, CopyOption... options) throws IOException {
        faults.count("move", target);
        real.move(unwrapped(source), unwrapped(target), options);
    }

    @Override
    public boolean isSameFile(Path path, Path other) throws IOException {
        return real.isSameFile(unwrapped(path), unwrapped(other));
    }

    @Override
    public boolean isHidden(Path path) throws IOException {
        return real.isHidden(unwrapped(path));
    }

    @Override
    public FileStore getFileStore(Path path) throws IOException {
        return real.getFileStore(unwrapped(path));
    }

    @Override
    public void checkAccess(Path path, AccessMode... modes) throws IOException {
        real.checkAccess(unwrapped(path), modes);
    }

    @Override
    public <V extends FileAttributeView> V getFileAttributeView(Path path, Class<V> type, LinkOption... options) {
        return real.getFileAttributeView(unwrapped(path), type, options);
    }

    @Override
    public <A extends BasicFileAttributes> A readAttributes(Path path, Class<A> type, LinkOption... options)
            throws IOException {
        return real.readAttributes(unwrapped(path), type, options);
    }

    @Override
    public Map<String, Object> readAttributes(Path path, String attributes, LinkOption... options) throws IOException {
        return real.readAttributes(unwrapped(path), attributes, options);
    }

    @Override
    public void setAttribute(Path path, String attribute, Object value, LinkOption... options) throws IOException {
        faults.count("set " + attribute, path);
        real.setAttribute(unwrapped(path), attribute, value, options);
    }
}
