package dev.morphema.schemas;

import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ValueProfile;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Writes what samples show as a schema, to begin with: a JSON Schema (2020-12) by which they are
 * valid.
 */
public final class LearnedSchemas {
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private LearnedSchemas() {}

    /**
     * {@return a JSON Schema of documents}
     *
     * @param shape what samples of the documents, or of their records, show
     * @param list whether a document is a list of such records
     */
    public static String json(LearnedShape shape, boolean list) {
        ObjectNode root = MAPPER.createObjectNode();
        root.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        JsonNode item = schema(shape);
        if (list) {
            root.put("type", "array");
            root.set("items", item);
        } else {
            item.properties().forEach(property -> root.set(property.getKey(), property.getValue()));
        }
        return MAPPER.writeValueAsString(root) + "\n";
    }

    /** The schema of what a field holds: one, or a list, or now this and now that. */
    private static JsonNode field(LearnedShape shape) {
        ObjectNode item = schema(shape);
        if (!shape.isList() && !shape.isMany()) {
            return item;
        }
        ObjectNode array = MAPPER.createObjectNode();
        array.put("type", "array");
        array.set("items", item);
        boolean always = shape.isList() && shape.lists() >= shape.present();
        if (always) {
            return array;
        }
        ObjectNode either = MAPPER.createObjectNode();
        either.putArray("anyOf").add(item).add(array);
        return either;
    }

    private static ObjectNode schema(LearnedShape shape) {
        ObjectNode schema = MAPPER.createObjectNode();
        ArrayNode types = MAPPER.createArrayNode();
        Map<Kind, Long> kinds = shape.kinds();
        if (kinds.containsKey(Kind.RECORD)) {
            types.add("object");
        }
        if (kinds.containsKey(Kind.TEXT)) {
            types.add("string");
        }
        if (kinds.containsKey(Kind.NUMBER)) {
            types.add("number");
        }
        if (kinds.containsKey(Kind.BOOLEAN)) {
            types.add("boolean");
        }
        if (shape.nulls() > 0) {
            types.add("null");
        }
        if (types.size() == 1) {
            schema.set("type", types.get(0));
        } else if (!types.isEmpty()) {
            schema.set("type", types);
        }
        if (kinds.keySet().equals(Set.of(Kind.TEXT)) && isDay(shape)) {
            schema.put("format", "date");
        }
        if (kinds.containsKey(Kind.RECORD)) {
            properties(shape, schema);
        }
        return schema;
    }

    private static boolean isDay(LearnedShape shape) {
        return shape.profile()
                .map(profile -> profile.blank() == 0
                        && !profile.types().isEmpty()
                        && profile.types().get(0).equals("date"))
                .orElse(false);
    }

    private static void properties(LearnedShape shape, ObjectNode schema) {
        ObjectNode properties = schema.putObject("properties");
        ArrayNode required = MAPPER.createArrayNode();
        boolean onlyRecords = shape.kinds().size() == 1 && shape.nulls() == 0;
        for (FieldName name : shape.names()) {
            LearnedShape field = Objects.requireNonNull(shape.field(name));
            String property = name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT.local() : name.local();
            properties.set(property, field(field));
            if (onlyRecords && shape.always(name)) {
                required.add(property);
            }
        }
        if (!required.isEmpty()) {
            schema.set("required", required);
        }
    }

    /** {@return the simple type of XML Schema that all texts at a place are of} */
    static String simpleType(LearnedShape shape) {
        ValueProfile profile = shape.profile().orElse(null);
        if (profile == null || profile.blank() > 0 || profile.types().isEmpty()) {
            return "xs:string";
        }
        boolean plain = profile.examples(Integer.MAX_VALUE).stream().noneMatch(text -> text.matches(".*[eE].*"));
        return switch (profile.types().get(0)) {
            case "number" -> plain ? "xs:decimal" : "xs:string";
            case "date" -> "xs:date";
            case "boolean" -> "xs:boolean";
            default -> "xs:string";
        };
    }
}
