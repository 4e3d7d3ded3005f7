package dev.morphema.schemas;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SchemaRegistryConfig;
import com.networknt.schema.SpecificationVersion;
import com.networknt.schema.path.NodePath;
import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Validates JSON by JSON Schema, value by value where the schema allows. Not thread-safe. */
final class JsonValidation {
    private static final String BASE = "schema://m/a/b/c/d/e/f/g/h/";
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .build();
    /** What says something of an array as a whole, so that all of it is to be there. */
    private static final List<String> OF_ALL = List.of(
            "$ref",
            "minItems",
            "maxItems",
            "uniqueItems",
            "contains",
            "prefixItems",
            "allOf",
            "anyOf",
            "oneOf",
            "not",
            "unevaluatedItems",
            "enum",
            "const",
            "if");

    private final SchemaDocuments documents;
    private final List<Problem> problems;
    private final int most;
    /** The problems whose place is not known yet, by the pointer to what is wrong. */
    private final Map<String, List<Integer>> unplaced = new HashMap<>();

    private final Input input;

    JsonValidation(Input input, SchemaReader.Files files, List<Problem> problems, int most) {
        this.input = input;
        this.documents = new SchemaDocuments(files);
        this.problems = problems;
        this.most = most;
    }

    void validate(boolean lines, SchemaPath path) throws IOException {
        SchemaNode node = node(path);
        JsonNode root = node.json();
        SchemaPath meant = new SchemaPath(node.file(), OpenApi.pointer(node));
        SchemaRegistry registry = registry(meant.file());
        boolean items = root.path("items").isObject() && OF_ALL.stream().noneMatch(root::has);
        try (InputStream in = input.open();
                JsonParser parser = MAPPER.createParser(in)) {
            JsonToken first = parser.nextToken();
            if (lines) {
                boolean array = root.path("type").asString("").equals("array") && items;
                Schema each = schema(registry, meant, array ? "/items" : "");
                for (int n = 0; first != null && problems.size() < most; n++, first = parser.nextToken()) {
                    TokenStreamLocation start = parser.currentTokenLocation();
                    check(each, parser.<JsonNode>readValueAsTree(), "", at(start, n + 1L));
                }
                return;
            }
            if (first == JsonToken.START_ARRAY && items) {
                Schema each = schema(registry, meant, "/items");
                for (int n = 0; parser.nextToken() != JsonToken.END_ARRAY && problems.size() < most; n++) {
                    check(each, parser.<JsonNode>readValueAsTree(), "/" + n, null);
                }
            } else {
                check(schema(registry, meant, ""), parser.<JsonNode>readValueAsTree(), "", null);
            }
        } catch (JacksonException e) {
            problems.add(Problem.error(Code.BAD_JSON, "The document is not well-formed: " + SchemaDocuments.words(e))
                    .in(at(e.getLocation(), 0)));
        }
        place();
    }

    /** {@return the schema that is meant, behind references that say nothing more} */
    private SchemaNode node(SchemaPath path) throws IOException {
        boolean operation = !path.fragment().startsWith("/") && OpenApi.isDescription(documents.root(path.file()));
        SchemaNode node =
                operation ? new OpenApi(documents, path).schema() : documents.find(path.file(), path.fragment());
        while (node.json().size() == 1 && node.json().has("$ref")) {
            node = documents.resolve(node, node.json().get("$ref").asString());
        }
        return node;
    }

    private SchemaRegistry registry(String file) {
        return SchemaRegistry.withDefaultDialect(
                SpecificationVersion.DRAFT_2020_12,
                builder -> builder.schemas(iri -> text(iri, file))
                        .schemaRegistryConfig(SchemaRegistryConfig.builder()
                                .formatAssertionsEnabled(true)
                                .build()));
    }

    /**
     * {@return the document of an address: one of the files, or one beside the schema that is
     * called so}
     */
    private @Nullable String text(String iri, String file) {
        String name = iri.startsWith(BASE)
                ? iri.substring(BASE.length())
                : iri.contains("json-schema.org")
                        ? ""
                        : SchemaPath.relative(file, iri.substring(iri.lastIndexOf('/') + 1));
        try {
            return name.isEmpty() ? null : documents.root(name).toString();
        } catch (IOException e) {
            return null;
        }
    }

    private static Schema schema(SchemaRegistry registry, SchemaPath path, String below) {
        return registry.getSchema(SchemaLocation.of(BASE + path.file() + "#" + path.fragment() + below));
    }

    private void check(Schema schema, JsonNode value, String pointer, @Nullable InputLocation place) {
        for (Error error : schema.validate(value)) {
            if (problems.size() >= most) {
                return;
            }
            String at = pointer + pointer(error.getInstanceLocation());
            if (place == null) {
                unplaced.computeIfAbsent(at, p -> new ArrayList<>()).add(problems.size());
            }
            InputLocation known = place == null ? at(null, 0) : place;
            problems.add(Problem.error(Code.INVALID, sentence(error.getMessage()))
                    .in(at.isEmpty() ? known : known.withField(at)));
        }
    }

    private static String sentence(String message) {
        return Character.toUpperCase(message.charAt(0)) + message.substring(1) + (message.endsWith(".") ? "" : ".");
    }

    private static String pointer(NodePath path) {
        StringBuilder pointer = new StringBuilder();
        for (int i = 0; i < path.getNameCount(); i++) {
            pointer.append('/').append(path.getName(i).replace("~", "~0").replace("/", "~1"));
        }
        return pointer.toString();
    }

    private InputLocation at(@Nullable TokenStreamLocation place, long record) {
        return place == null
                ? new InputLocation(input.name(), record, 0, 0, null, null)
                : new InputLocation(input.name(), record, place.getLineNr(), place.getColumnNr(), null, null);
    }

    /** The document is gone through once more for the places of what is wrong. */
    private void place() throws IOException {
        if (unplaced.isEmpty()) {
            return;
        }
        try (InputStream in = input.open();
                JsonParser parser = MAPPER.createParser(in)) {
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token == JsonToken.PROPERTY_NAME || token == JsonToken.END_OBJECT || token == JsonToken.END_ARRAY) {
                    continue;
                }
                String pointer = parser.streamReadContext().pathAsPointer(false).toString();
                for (int problem : unplaced.getOrDefault(pointer, List.of())) {
                    InputLocation at = at(parser.currentTokenLocation(), 0);
                    problems.set(problem, problems.get(problem).in(pointer.isEmpty() ? at : at.withField(pointer)));
                }
            }
        } catch (JacksonException e) {
            // Told already.
        }
    }
}
