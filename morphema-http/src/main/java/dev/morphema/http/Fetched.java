package dev.morphema.http;

import dev.morphema.format.Input;
import dev.morphema.output.Spool;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;

/**
 * What was got from an address: in memory while it is little, else in temporary files, which are
 * gone when this is closed. Can be read any number of times until then.
 */
public final class Fetched implements AutoCloseable {
    private final List<Page> pages = new ArrayList<>();

    /** A page with what problems call it. */
    private record Page(String name, Spool bytes) implements Input {
        @Override
        public InputStream open() {
            return bytes.open();
        }

        @Override
        public boolean isRereadable() {
            return true;
        }

        @Override
        public long size() {
            return bytes.size();
        }
    }

    Input add(String name, Spool bytes) {
        Page page = new Page(name, bytes);
        pages.add(page);
        return page;
    }

    /** {@return the pages in order, at least one} */
    public List<Input> pages() {
        return List.copyOf(pages);
    }

    @Override
    public void close() {
        pages.forEach(page -> page.bytes().delete());
    }
}
