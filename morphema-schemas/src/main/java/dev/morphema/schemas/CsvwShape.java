package dev.morphema.schemas;

import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.shape.SchemaShapeBuilder;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.List;
import tools.jackson.databind.JsonNode;

/** The columns of CSVW metadata (Metadata Vocabulary for Tabular Data). */
final class CsvwShape {
    private static final List<String> WHOLE = List.of(
            "integer",
            "long",
            "int",
            "short",
            "byte",
            "nonNegativeInteger",
            "positiveInteger",
            "unsignedLong",
            "unsignedInt",
            "unsignedShort",
            "unsignedByte",
            "nonPositiveInteger",
            "negativeInteger");
    private static final List<String> NUMBERS = List.of("number", "decimal", "double", "float");

    private CsvwShape() {}

    static boolean isMetadata(JsonNode root) {
        return !schema(root).isMissingNode();
    }

    private static JsonNode schema(JsonNode root) {
        JsonNode own = root.path("tableSchema");
        return own.isMissingNode() ? root.path("tables").path(0).path("tableSchema") : own;
    }

    static SchemaShape read(JsonNode root, SchemaDocuments documents) {
        SchemaShapeBuilder rows = SchemaShape.builder()
                .place(() -> documents.place(schema(root)))
                .record()
                .textual();
        for (JsonNode column : schema(root).path("columns")) {
            if (column.path("virtual").asBoolean(false)) {
                continue;
            }
            ScalarType type = type(column.path("datatype"));
            boolean required = column.path("required").asBoolean(false);
            SchemaShape cell = SchemaShape.builder()
                    .place(() -> documents.place(column))
                    .scalar(type)
                    .textual()
                    .description(column.path("dc:description").asString(null))
                    .build();
            rows.field(new Field(FieldName.of(name(column)), required, false, null, () -> cell));
        }
        return rows.build();
    }

    /** The title is what stands in the header of the file. */
    private static String name(JsonNode column) {
        JsonNode titles = column.path("titles");
        while (titles.isContainer() && !titles.isEmpty()) {
            titles = titles.iterator().next();
        }
        return titles.isString() ? titles.asString() : column.path("name").asString("");
    }

    private static ScalarType type(JsonNode datatype) {
        String base = datatype.isObject() ? datatype.path("base").asString("string") : datatype.asString("string");
        // A date in a format of its own is no text that reads as a date.
        boolean own = datatype.has("format");
        if (WHOLE.contains(base)) {
            return new ScalarType(Kind.TEXT, Kind.NUMBER, true, List.of(), List.of());
        }
        if (NUMBERS.contains(base) && !own) {
            return ScalarType.text(Kind.NUMBER);
        }
        return switch (own ? "" : base) {
            case "date" -> ScalarType.text(Kind.DATE);
            case "time" -> ScalarType.text(Kind.TIME);
            case "datetime", "dateTime" -> ScalarType.text(Kind.DATETIME);
            case "boolean" -> ScalarType.text(Kind.BOOLEAN);
            default -> ScalarType.text(Kind.TEXT);
        };
    }
}
