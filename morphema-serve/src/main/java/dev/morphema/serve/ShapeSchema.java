package dev.morphema.serve;

import dev.morphema.shape.Shape;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Writes shapes as JSON Schemas (2020-12), as far as they are known. Not thread-safe. */
final class ShapeSchema {
    private final JsonGenerator out;
    /** What is being written, which may hold itself. */
    private final Set<Object> open = new HashSet<>();

    private ShapeSchema(JsonGenerator out) {
        this.out = out;
    }

    /**
     * Writes the schema of a document.
     *
     * @param list whether it is a list of what the shape is of
     */
    static void write(Shape shape, boolean list, JsonGenerator out) {
        ShapeSchema schema = new ShapeSchema(out);
        if (list) {
            schema.array(shape);
        } else {
            schema.one(shape);
        }
    }

    /** Writes what a type of a mapping is, into an object. */
    static void type(String type, JsonGenerator out) {
        switch (type) {
            case "number", "integer", "boolean" -> out.writeStringProperty("type", type);
            case "date", "time" -> text(type, out);
            case "datetime" -> text("date-time", out);
            default -> text(null, out);
        }
    }

    private static void text(@Nullable String format, JsonGenerator out) {
        out.writeStringProperty("type", "string");
        if (format != null) {
            out.writeStringProperty("format", format);
        }
    }

    private void array(Shape item) {
        out.writeStartObject();
        out.writeStringProperty("type", "array");
        out.writeName("items");
        one(item);
        out.writeEndObject();
    }

    private void one(Shape shape) {
        out.writeStartObject();
        Set<String> codes = shape.codes();
        if (shape.isRecord()) {
            record(shape);
        } else if (codes != null && shape.kind() == Kind.TEXT) {
            out.writeStringProperty("type", "string");
            out.writeArrayPropertyStart("enum");
            codes.forEach(out::writeString);
            out.writeEndArray();
        } else if (shape.kind() != null) {
            scalar(shape.kind(), shape.form());
        }
        out.writeEndObject();
    }

    private void scalar(Kind kind, @Nullable Kind form) {
        switch (kind) {
            case NUMBER -> type("number", out);
            case BOOLEAN -> type("boolean", out);
            case TEXT -> text(form == Kind.DATE ? "date" : form == Kind.DATETIME ? "date-time" : null, out);
            default -> {
                // what may be several things says nothing of its type
            }
        }
    }

    private void record(Shape shape) {
        out.writeStringProperty("type", "object");
        if (!open.add(shape.definition())) {
            return;
        }
        List<String> required = new ArrayList<>();
        out.writeObjectPropertyStart("properties");
        for (FieldName name : shape.names()) {
            Shape field = Objects.requireNonNull(shape.field(name));
            out.writeName(name.local());
            if (field.isList() || field.isMany()) {
                array(field);
            } else {
                one(field);
            }
            if (shape.always(name)) {
                required.add(name.local());
            }
        }
        out.writeEndObject();
        if (!required.isEmpty()) {
            out.writeArrayPropertyStart("required");
            required.forEach(out::writeString);
            out.writeEndArray();
        }
        open.remove(shape.definition());
    }
}
