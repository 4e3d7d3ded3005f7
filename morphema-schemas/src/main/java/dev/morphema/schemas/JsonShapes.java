package dev.morphema.schemas;

import dev.morphema.shape.ScalarType;
import dev.morphema.shape.ScalarType.Facet;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.shape.SchemaShape.Items;
import dev.morphema.shape.SchemaShape.Others;
import dev.morphema.shape.SchemaShapeBuilder;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * Shapes of JSON Schema, 2020-12 and draft-07, with the additions of OpenAPI 3.0. What says nothing
 * of the form of data is passed over. Not thread-safe.
 */
final class JsonShapes {
    private static final List<String> ALTERNATIVES = List.of("anyOf", "oneOf");

    private final SchemaDocuments documents;
    /** Whether all values are texts, as in CSV. */
    private final boolean textual;

    private final Map<JsonNode, SchemaShape> known = new IdentityHashMap<>();
    private final Set<JsonNode> open = Collections.newSetFromMap(new IdentityHashMap<>());

    JsonShapes(SchemaDocuments documents, boolean textual) {
        this.documents = documents;
        this.textual = textual;
    }

    /** {@return the shape of a schema} */
    SchemaShape shape(SchemaNode node) {
        SchemaShape shape = known.get(node.json());
        if (shape != null) {
            return shape;
        }
        if (!open.add(node.json())) {
            // A schema that is nothing but itself says nothing.
            return SchemaShape.anything();
        }
        try {
            shape = made(node);
        } finally {
            open.remove(node.json());
        }
        known.put(node.json(), shape);
        return shape;
    }

    private SchemaShape made(SchemaNode node) {
        JsonNode json = node.json();
        if (!json.isObject()) {
            return SchemaShape.anything();
        }
        List<SchemaShape> all = new ArrayList<>();
        if (json.has("$ref")) {
            all.add(shape(documents.resolve(node, json.get("$ref").asString())));
        }
        json.path("allOf").forEach(part -> all.add(shape(node.with(part))));
        for (String word : ALTERNATIVES) {
            if (json.path(word).isArray() && !json.path(word).isEmpty()) {
                all.add(either(node, json.path(word)));
            }
        }
        conditional(node, all);
        SchemaShape own = own(node);
        if (own != null) {
            all.add(own);
        }
        all.removeIf(SchemaShape::isAnything);
        if (all.size() == 1) {
            return all.get(0);
        }
        return all.isEmpty()
                ? SchemaShape.anything()
                : SchemaShape.builder()
                        .place(() -> documents.place(json))
                        .others(othersOf(json))
                        .all(all)
                        .build();
    }

    private SchemaShape either(SchemaNode node, JsonNode alternatives) {
        List<SchemaShape> shapes = new ArrayList<>();
        alternatives.forEach(part -> shapes.add(shape(node.with(part))));
        return SchemaShape.builder()
                .place(() -> documents.place(node.json()))
                .either(shapes)
                .build();
    }

    /** What then and else add may be there. */
    private void conditional(SchemaNode node, List<SchemaShape> all) {
        for (String word : List.of("then", "else")) {
            if (node.json().has("if") && node.json().path(word).isObject()) {
                SchemaShapeBuilder optional = SchemaShape.builder().others(Others.UNSAID);
                shape(node.with(node.json().get(word))).fields().forEach(field -> optional.field(field.optional()));
                all.add(optional.build());
            }
        }
    }

    private static Others othersOf(JsonNode json) {
        for (String word : List.of("additionalProperties", "unevaluatedProperties")) {
            if (json.has(word)) {
                return json.get(word).isBoolean() && !json.get(word).asBoolean() ? Others.NONE : Others.ANY;
            }
        }
        return json.has("patternProperties") ? Others.ANY : Others.UNSAID;
    }

    /** {@return what a schema says itself, or null if it says nothing} */
    private @Nullable SchemaShape own(SchemaNode node) {
        JsonNode json = node.json();
        List<String> types = types(json);
        SchemaShapeBuilder shape =
                SchemaShape.builder().place(() -> documents.place(json)).others(othersOf(json));
        if (textual) {
            shape.textual();
        }
        shape.description(text(json, "description", text(json, "title", null)));
        if (types.contains("null") || json.path("nullable").asBoolean(false)) {
            shape.nullable();
        }
        boolean says = false;
        if (types.contains("object")) {
            properties(node, shape);
            says = true;
        }
        for (String type : types) {
            ScalarType scalar = scalar(type, json);
            if (scalar != null) {
                shape.scalar(scalar);
                says = true;
            }
        }
        if (types.contains("array")) {
            SchemaShape items = items(node);
            shape.all(List.of(items)).items(says ? Items.EITHER : Items.LIST);
            if (!says && items.isAnything()) {
                shape.others(Others.ANY);
            } else if (!says) {
                shape.place(items::place);
            }
            says = true;
        }
        return says ? shape.build() : null;
    }

    /** {@return the types that values may have, also where only a keyword shows them} */
    private static List<String> types(JsonNode json) {
        List<String> types = new ArrayList<>();
        JsonNode type = json.path("type");
        if (type.isString()) {
            types.add(type.asString());
        } else if (type.isArray()) {
            type.forEach(each -> types.add(each.asString()));
        } else if (json.has("properties") || json.has("required")) {
            types.add("object");
        } else if (json.has("items") || json.has("prefixItems")) {
            types.add("array");
        } else if (json.has("enum") || json.has("const")) {
            Set<String> found = new LinkedHashSet<>();
            values(json).forEach(value -> found.add(typeOf(value)));
            types.addAll(found);
        } else if (json.has("pattern") || json.has("minLength") || json.has("maxLength") || json.has("format")) {
            types.add("string");
        } else if (json.has("minimum") || json.has("maximum")) {
            types.add("number");
        }
        return types;
    }

    private static List<JsonNode> values(JsonNode json) {
        List<JsonNode> values = new ArrayList<>();
        json.path("enum").forEach(values::add);
        if (json.has("const")) {
            values.add(json.get("const"));
        }
        return values;
    }

    private static String typeOf(JsonNode value) {
        return value.isString()
                ? "string"
                : value.isNumber() ? "number" : value.isBoolean() ? "boolean" : value.isNull() ? "null" : "object";
    }

    private void properties(SchemaNode node, SchemaShapeBuilder shape) {
        JsonNode json = node.json();
        shape.record();
        Set<String> required = new HashSet<>();
        json.path("required").forEach(name -> required.add(name.asString()));
        for (Map.Entry<String, JsonNode> property : json.path("properties").properties()) {
            SchemaNode held = node.with(property.getValue());
            JsonNode fixed = property.getValue().path("const");
            shape.field(new Field(
                    FieldName.of(property.getKey()),
                    required.remove(property.getKey()),
                    false,
                    fixed.isValueNode() && !fixed.isNull() ? fixed.asString() : null,
                    () -> shape(held)));
        }
        required.forEach(name -> shape.field(new Field(FieldName.of(name), true, false, null, SchemaShape::anything)));
    }

    private SchemaShape items(SchemaNode node) {
        JsonNode json = node.json();
        JsonNode first = json.has("prefixItems") ? json.get("prefixItems") : json.path("items");
        if (first.isArray() && !first.isEmpty()) {
            return either(node, first).item();
        }
        return json.path("items").isObject()
                ? shape(node.with(json.get("items"))).item()
                : SchemaShape.anything();
    }

    private @Nullable ScalarType scalar(String type, JsonNode json) {
        List<String> codes = values(json).stream()
                .filter(value -> fits(type, value))
                .map(JsonNode::asString)
                .toList();
        return switch (type) {
            case "string" -> string(json).withCodes(codes);
            case "boolean" -> new ScalarType(textual ? Kind.TEXT : Kind.BOOLEAN, Kind.BOOLEAN, false, codes, List.of());
            case "number", "integer" ->
                new ScalarType(
                        textual ? Kind.TEXT : Kind.NUMBER, Kind.NUMBER, type.equals("integer"), codes, bounds(json));
            default -> null;
        };
    }

    private static boolean fits(String type, JsonNode value) {
        return typeOf(value).equals(type) || type.equals("integer") && value.isNumber();
    }

    private static ScalarType string(JsonNode json) {
        Kind form =
                switch (json.path("format").asString("")) {
                    case "date" -> Kind.DATE;
                    case "time" -> Kind.TIME;
                    case "date-time" -> Kind.DATETIME;
                    default -> Kind.TEXT;
                };
        ScalarType type = ScalarType.text(form);
        if (json.has("minLength")) {
            type = type.with(Facet.shortest(json.get("minLength").asInt()));
        }
        if (json.has("maxLength")) {
            type = type.with(Facet.longest(json.get("maxLength").asInt()));
        }
        return type.with(Patterns.found(json.path("pattern").asString("")));
    }

    private static List<Facet> bounds(JsonNode json) {
        List<Facet> facets = new ArrayList<>();
        for (boolean upper : new boolean[] {false, true}) {
            String bound = upper ? "maximum" : "minimum";
            String beside = upper ? "exclusiveMaximum" : "exclusiveMinimum";
            if (json.path(bound).isNumber()) {
                boolean exclusive =
                        json.path(beside).asBoolean(false) && json.path(beside).isBoolean();
                facets.add(Facet.bound(upper, !exclusive, json.get(bound).decimalValue()));
            }
            if (json.path(beside).isNumber()) {
                facets.add(Facet.bound(upper, false, json.get(beside).decimalValue()));
            }
        }
        return facets;
    }

    private static @Nullable String text(JsonNode json, String name, @Nullable String otherwise) {
        return json.path(name).isString() ? json.get(name).asString() : otherwise;
    }
}
