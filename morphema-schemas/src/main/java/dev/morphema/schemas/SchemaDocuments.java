package dev.morphema.schemas;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonPointer;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.dataformat.yaml.YAMLMapper;

/** The documents of a schema in JSON or YAML, each read once. Not thread-safe. */
final class SchemaDocuments {
    private static final ObjectMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            // Values are read one by one.
            .disable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();
    private static final ObjectMapper YAML = YAMLMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            // Values are read one by one.
            .disable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();

    private final SchemaReader.Files files;
    private final Map<String, JsonNode> roots = new HashMap<>();
    private final SchemaPlaces places = new SchemaPlaces();

    SchemaDocuments(SchemaReader.Files files) {
        this.files = files;
    }

    /**
     * {@return a whole document}
     *
     * @throws IOException if it cannot be read
     * @throws ProblemException if it is not well-formed
     */
    JsonNode root(String file) throws IOException {
        JsonNode known = roots.get(file);
        if (known == null) {
            known = read(file);
            roots.put(file, known);
        }
        return known;
    }

    private JsonNode read(String file) throws IOException {
        boolean json = file.toLowerCase(Locale.ROOT).endsWith(".json");
        ObjectMapper mapper = json ? JSON : YAML;
        try (InputStream in = files.open(file).open();
                JsonParser parser = mapper.createParser(in)) {
            JsonNode root = parser.nextToken() == null ? null : places.read(parser, mapper, file);
            if (root == null || !root.isObject() && !root.isBoolean()) {
                throw new ProblemException(bad(file, "This is no schema: it is not an object."));
            }
            if (json && parser.nextToken() != null) {
                TokenStreamLocation place = parser.currentTokenLocation();
                throw new ProblemException(bad(file, "The schema is not well-formed: something stands behind its end.")
                        .in(InputLocation.at(file, place.getLineNr(), place.getColumnNr())));
            }
            return root;
        } catch (JacksonException e) {
            TokenStreamLocation place = e.getLocation();
            Problem problem = bad(file, "The schema is not well-formed: " + words(e));
            throw new ProblemException(
                    place == null
                            ? problem
                            : problem.in(InputLocation.at(file, place.getLineNr(), place.getColumnNr())),
                    e);
        }
    }

    /** {@return where an object of a document begins, or null} */
    @Nullable
    InputLocation place(JsonNode part) {
        return places.of(part);
    }

    /** {@return what is wrong with a text, without what only a debugger wants to know} */
    static String words(JacksonException e) {
        String plain = e.getOriginalMessage().replaceAll(" \\((for|start marker) .*", "");
        return plain + (plain.endsWith(".") ? "" : ".");
    }

    static Problem bad(String file, String message) {
        return Problem.error(Code.BAD_SCHEMA, message).in(new InputLocation(file, 0, 0, 0, null, null));
    }

    /**
     * {@return the part of a document that a fragment names: a pointer (RFC 6901) or an anchor}
     *
     * @throws ProblemException if there is no such part
     */
    SchemaNode find(String file, String fragment) throws IOException {
        JsonNode root = root(file);
        String decoded = URLDecoder.decode(fragment.replace("+", "%2B"), StandardCharsets.UTF_8);
        JsonNode part = decoded.isEmpty()
                ? root
                : decoded.startsWith("/") ? root.at(JsonPointer.compile(decoded)) : anchored(root, decoded);
        if (part == null || part.isMissingNode()) {
            throw new ProblemException(bad(file, "The schema has no part #" + fragment + "."));
        }
        return new SchemaNode(file, root, part);
    }

    private static @Nullable JsonNode anchored(JsonNode root, String name) {
        Deque<JsonNode> open = new ArrayDeque<>();
        open.add(root);
        while (!open.isEmpty()) {
            JsonNode next = open.remove();
            if (name.equals(next.path("$anchor").asString(""))
                    || ("#" + name).equals(next.path("$id").asString(""))) {
                return next;
            }
            next.forEach(open::add);
        }
        return null;
    }

    /**
     * {@return what a reference in a schema means}
     *
     * @throws ProblemException if there is no such part, or its file cannot be read
     */
    SchemaNode resolve(SchemaNode from, String reference) {
        SchemaPath path = SchemaPath.parse(reference);
        try {
            String id = from.root().path("$id").asString("");
            if (path.file().isEmpty() || path.file().equals(id)) {
                return find(from.file(), path.fragment());
            }
            if (path.file().contains("://")) {
                throw new ProblemException(bad(
                                from.file(),
                                "The schema refers to " + path.file() + ", and nothing is fetched from a network.")
                        .withHelp("keep a copy beside the schema and refer to it by its file"));
            }
            return find(SchemaPath.relative(from.file(), path.file()), path.fragment());
        } catch (IOException e) {
            throw new ProblemException(
                    bad(from.file(), "The schema refers to a file that cannot be read: " + path.file() + "."),
                    new UncheckedIOException(e));
        }
    }
}
