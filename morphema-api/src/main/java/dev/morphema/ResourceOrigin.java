package dev.morphema;

import dev.morphema.format.Input;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;

/** A mapping on the class path. */
final class ResourceOrigin implements MappingOrigin {
    private final ClassLoader loader;
    private final String resource;

    ResourceOrigin(ClassLoader loader, String resource) {
        this.loader = loader;
        this.resource = resource;
    }

    @Override
    public String name() {
        return resource;
    }

    @Override
    public String text() throws IOException {
        try (InputStream in = open(resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Override
    public Input file(String path) {
        String name = relative(path);
        return new Input() {
            @Override
            public String name() {
                return name;
            }

            @Override
            public InputStream open() throws IOException {
                return ResourceOrigin.this.open(name);
            }
        };
    }

    @Override
    public MappingOrigin use(String path) {
        return new ResourceOrigin(loader, relative(path));
    }

    private String relative(String path) {
        return URI.create("/" + resource.replace(" ", "%20"))
                .resolve(path.replace(" ", "%20"))
                .getPath()
                .substring(1);
    }

    private InputStream open(String name) throws IOException {
        InputStream in = loader.getResourceAsStream(name);
        if (in == null) {
            throw new FileNotFoundException("no resource " + name);
        }
        return in;
    }
}
