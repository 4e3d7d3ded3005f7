package dev.morphema.schemas;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.math.BigDecimal;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * Looks whether an address is a call as an OpenAPI 3 description wants it: its path, and the
 * parameters of its query. Not thread-safe; of use once.
 */
public final class ApiCall {
    private static final Pattern VARIABLE = Pattern.compile("\\{[^}/]*}");

    private final String shown;
    private final String operation;
    private final List<Problem> problems = new ArrayList<>();

    private ApiCall(URI address, String operation) {
        this.shown = address.getScheme() + "://" + address.getAuthority() + address.getPath();
        this.operation = operation;
    }

    /**
     * {@return what is wrong with a call}; nothing, if the schema is not that of an operation
     *
     * @param schema as a mapping names it, such as {@code api.yaml#GET /teams}
     * @param files opens the description and the files that it names
     * @param address of the call
     * @throws IOException if the description cannot be read
     * @throws dev.morphema.problem.ProblemException if it is not well-formed
     */
    public static List<Problem> problems(String schema, SchemaReader.Files files, URI address) throws IOException {
        SchemaPath path = SchemaPath.parse(schema);
        int blank = path.fragment().indexOf(' ');
        if (path.fragment().startsWith("/") || blank < 0) {
            return List.of();
        }
        SchemaDocuments documents = new SchemaDocuments(files);
        JsonNode root = documents.root(path.file());
        String template = path.fragment().substring(blank + 1);
        JsonNode item = root.path("paths").path(template);
        JsonNode found = item.path(path.fragment().substring(0, blank).toLowerCase(Locale.ROOT));
        if (!OpenApi.isDescription(root) || found.isMissingNode()) {
            return List.of();
        }
        ApiCall call = new ApiCall(address, path.fragment());
        call.checkPath(template, String.valueOf(address.getPath()));
        Map<String, JsonNode> wanted = new LinkedHashMap<>();
        for (JsonNode holder : List.of(item, found)) {
            for (JsonNode parameter : holder.path("parameters")) {
                JsonNode one = resolved(documents, new SchemaNode(path.file(), root, parameter));
                if (one.path("in").asString("").equals("query")) {
                    wanted.put(one.path("name").asString(""), one);
                }
            }
        }
        call.checkQuery(query(address), wanted, documents, new SchemaNode(path.file(), root, root));
        return call.problems;
    }

    private static JsonNode resolved(SchemaDocuments documents, SchemaNode node) {
        JsonNode reference = node.json().get("$ref");
        return reference == null
                ? node.json()
                : documents.resolve(node, reference.asString()).json();
    }

    /** {@return the parameters of a query, decoded} */
    private static Map<String, String> query(URI address) {
        Map<String, String> query = new LinkedHashMap<>();
        String text = address.getRawQuery();
        for (String pair : text == null || text.isEmpty() ? new String[0] : text.split("&")) {
            int at = pair.indexOf('=');
            query.put(decoded(at < 0 ? pair : pair.substring(0, at)), at < 0 ? "" : decoded(pair.substring(at + 1)));
        }
        return query;
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    private void report(String message, @Nullable String value, @Nullable String help) {
        problems.add(Problem.error(Code.PARAMETER, message)
                .in(InputLocation.at(shown, 0, 0))
                .withValue(value)
                .withHelp(help));
    }

    /** The address may begin with the path of a server, which the description need not say. */
    private void checkPath(String template, String path) {
        StringBuilder pattern = new StringBuilder(".*");
        int from = 0;
        for (var variable : VARIABLE.matcher(template).results().toList()) {
            pattern.append(Pattern.quote(template.substring(from, variable.start())))
                    .append("[^/]+");
            from = variable.end();
        }
        pattern.append(Pattern.quote(template.substring(from))).append("/?");
        if (!path.matches(pattern.toString())) {
            report(
                    "The address is not that of the operation " + operation + ".",
                    null,
                    "its path ends with " + template);
        }
    }

    private void checkQuery(
            Map<String, String> given, Map<String, JsonNode> wanted, SchemaDocuments documents, SchemaNode root) {
        given.forEach((name, value) -> {
            JsonNode parameter = wanted.get(name);
            if (parameter != null) {
                checkValue(name, value, resolved(documents, root.with(parameter.path("schema"))));
            } else if (wanted.keySet().stream().noneMatch(known -> name.startsWith(known + "["))) {
                report(
                        "The operation " + operation + " has no parameter " + name + ".",
                        null,
                        NearNames.proposal(name, List.copyOf(wanted.keySet()))
                                .orElse(wanted.isEmpty() ? null : "it has " + String.join(", ", wanted.keySet())));
            }
        });
        wanted.forEach((name, parameter) -> {
            if (parameter.path("required").asBoolean(false) && !given.containsKey(name)) {
                report(
                        "The operation " + operation + " needs the parameter " + name + ".",
                        null,
                        "add ?" + name + "=…");
            }
        });
    }

    private void checkValue(String name, String value, JsonNode schema) {
        String type = schema.path("type").asString("");
        boolean number = type.equals("integer") || type.equals("number");
        List<String> codes = new ArrayList<>();
        schema.path("enum").forEach(code -> codes.add(code.asString()));
        if (number && !value.matches(type.equals("integer") ? "-?\\d+" : "-?\\d+(\\.\\d+)?([eE][-+]?\\d+)?")) {
            report(
                    "The parameter " + name + " is " + (type.equals("integer") ? "a whole number" : "a number") + ".",
                    value,
                    null);
        } else if (type.equals("boolean") && !value.matches("true|false")) {
            report("The parameter " + name + " is true or false.", value, null);
        } else if (!codes.isEmpty() && !codes.contains(value)) {
            report(
                    "The parameter " + name + " has other values.",
                    value,
                    NearNames.proposal(value, codes).orElse("one of " + String.join(", ", codes)));
        } else if (number && !isWithin(new BigDecimal(value), schema)) {
            report(
                    "The parameter " + name + " is too large or too small.",
                    value,
                    "from " + schema.path("minimum").asString("any") + " to "
                            + schema.path("maximum").asString("any"));
        }
    }

    private static boolean isWithin(BigDecimal number, JsonNode schema) {
        return (!schema.has("minimum") || number.compareTo(schema.get("minimum").decimalValue()) >= 0)
                && (!schema.has("maximum")
                        || number.compareTo(schema.get("maximum").decimalValue()) <= 0);
    }
}
