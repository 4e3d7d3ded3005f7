package dev.morphema.http;

import dev.morphema.format.Input;
import dev.morphema.output.Spool;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What was got from an address: in memory while it is little, else in temporary files, which are
 * gone when this is closed. Can be read any number of times until then.
 */
public final class Fetched implements AutoCloseable {
    private final List<Page> pages = new ArrayList<>();
    private Map<String, String> conditions = Map.of();
    private @Nullable String type;

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

    Input add(String name, Spool bytes, @Nullable String mediaType, Map<String, String> howToAskForNew) {
        Page page = new Page(name, bytes);
        type = pages.isEmpty() ? mediaType : type;
        pages.add(page);
        conditions = pages.size() == 1 ? Map.copyOf(howToAskForNew) : Map.of();
        return page;
    }

    /**
     * {@return headers by which only what is new is asked for}; none for several pages, of which
     * the first may be as it was and others not
     */
    Map<String, String> conditions() {
        return conditions;
    }

    boolean hasSameContent(Fetched other) {
        if (pages.size() != other.pages.size()) {
            return false;
        }
        for (int i = 0; i < pages.size(); i++) {
            if (!haveSameContent(pages.get(i), other.pages.get(i))) {
                return false;
            }
        }
        return true;
    }

    private static boolean haveSameContent(Page one, Page other) {
        if (one.size() != other.size()) {
            return false;
        }
        try (InputStream mine = new BufferedInputStream(one.open());
                InputStream others = new BufferedInputStream(other.open())) {
            int read = mine.read();
            while (read >= 0 && read == others.read()) {
                read = mine.read();
            }
            return read < 0 && others.read() < 0;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * {@return the media type that the server says the first page is of (RFC 9110), without
     * parameters}
     */
    public Optional<String> mediaType() {
        return Optional.ofNullable(type)
                .map(said -> said.split(";", 2)[0].strip().toLowerCase(Locale.ROOT));
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
