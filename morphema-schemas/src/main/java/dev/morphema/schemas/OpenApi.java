package dev.morphema.schemas;

import dev.morphema.problem.NearNames;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * The schemas of an OpenAPI 3 description: those of its components, by pointer, and those of an
 * operation, such as {@code GET /calls} for what it answers and {@code POST /calls body} for what
 * is sent.
 */
final class OpenApi {
    private static final String BODY = " body";

    private final SchemaDocuments documents;
    private final SchemaPath path;

    OpenApi(SchemaDocuments documents, SchemaPath path) {
        this.documents = documents;
        this.path = path;
    }

    static boolean isDescription(JsonNode root) {
        return root.has("openapi");
    }

    SchemaNode schema() throws IOException {
        JsonNode root = documents.root(path.file());
        if (path.fragment().startsWith("/")) {
            return documents.find(path.file(), path.fragment());
        }
        boolean body = path.fragment().endsWith(BODY);
        String operation =
                body ? path.fragment().substring(0, path.fragment().length() - BODY.length()) : path.fragment();
        int blank = operation.indexOf(' ');
        if (blank < 0) {
            throw refused(root);
        }
        JsonNode found = root.path("paths")
                .path(operation.substring(blank + 1))
                .path(operation.substring(0, blank).toLowerCase(Locale.ROOT));
        SchemaNode at = new SchemaNode(path.file(), root, found);
        JsonNode content = body ? found.path("requestBody") : answer(found);
        SchemaNode holder =
                content.has("$ref") ? documents.resolve(at, content.get("$ref").asString()) : at.with(content);
        for (Map.Entry<String, JsonNode> type : holder.json().path("content").properties()) {
            if (type.getKey().contains("json") && type.getValue().has("schema")) {
                return holder.with(type.getValue().get("schema"));
            }
        }
        throw refused(root);
    }

    /** {@return what an operation answers when all is well} */
    private static JsonNode answer(JsonNode operation) {
        for (Map.Entry<String, JsonNode> response : operation.path("responses").properties()) {
            if (response.getKey().startsWith("2")) {
                return response.getValue();
            }
        }
        return operation.path("responses").path("default");
    }

    /** {@return the pointer from the root of a description to a part of it} */
    static String pointer(SchemaNode node) {
        String found = pointer(node.root(), node.json(), "");
        return found == null ? "" : found;
    }

    private static @Nullable String pointer(JsonNode from, JsonNode to, String path) {
        if (from == to) {
            return path;
        }
        for (Map.Entry<String, JsonNode> property : from.properties()) {
            String name = property.getKey().replace("~", "~0").replace("/", "~1");
            String found = pointer(property.getValue(), to, path + "/" + name);
            if (found != null) {
                return found;
            }
        }
        for (int i = 0; from.isArray() && i < from.size(); i++) {
            String found = pointer(from.get(i), to, path + "/" + i);
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    private ProblemException refused(JsonNode root) {
        List<String> parts = new ArrayList<>();
        root.path("components")
                .path("schemas")
                .propertyNames()
                .forEach(name -> parts.add("#/components/schemas/" + name));
        for (Map.Entry<String, JsonNode> each : root.path("paths").properties()) {
            each.getValue()
                    .propertyNames()
                    .forEach(method -> parts.add("#" + method.toUpperCase(Locale.ROOT) + " " + each.getKey()));
        }
        String words = path.fragment().isEmpty()
                ? "This describes an interface, so one of its schemas is to be named."
                : "The description has no schema of JSON for " + path.fragment() + ".";
        return new ProblemException(
                SchemaDocuments.bad(path.file(), words).withHelp("there is " + NearNames.listed(parts)));
    }
}
