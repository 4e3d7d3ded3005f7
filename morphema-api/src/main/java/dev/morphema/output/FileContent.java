package dev.morphema.output;

import dev.morphema.format.Input;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.GZIPInputStream;

/** What is in a file so far, decompressed if its name says that it is compressed. */
final class FileContent implements Input {
    private final Path place;
    private final String name;

    /** @param name what problems call it */
    FileContent(Path place, String name) {
        this.place = place;
        this.name = name;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public InputStream open() throws IOException {
        InputStream bytes = Files.newInputStream(place);
        return place.toString().endsWith(".gz") ? new GZIPInputStream(bytes) : bytes;
    }

    @Override
    public boolean isRereadable() {
        return true;
    }
}
