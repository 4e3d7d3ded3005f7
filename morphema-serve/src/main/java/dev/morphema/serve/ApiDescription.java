package dev.morphema.serve;

import dev.morphema.Mapping;
import dev.morphema.Outline;
import dev.morphema.shape.Shape;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/** What a server answers, as an OpenAPI 3.1 document. */
final class ApiDescription {
    private static final JsonFactory JSON = new JsonFactory();

    private ApiDescription() {}

    static String of(Map<String, ServedMapping> served) {
        StringWriter text = new StringWriter();
        try (JsonGenerator out = JSON.createGenerator(ObjectWriteContext.empty(), text)) {
            out.writeStartObject();
            out.writeStringProperty("openapi", "3.1.0");
            out.writeObjectPropertyStart("info");
            out.writeStringProperty("title", "Mappings");
            out.writeStringProperty("version", "1");
            out.writeEndObject();
            out.writeObjectPropertyStart("paths");
            served.forEach((name, mapping) -> path(name, mapping.current(), out));
            out.writeEndObject();
            out.writeEndObject();
        }
        return text + "\n";
    }

    private static void path(String name, ServedMapping.Form form, JsonGenerator out) {
        Mapping mapping = form.mapping();
        out.writeObjectPropertyStart("/" + name);
        out.writeObjectPropertyStart("post");
        out.writeStringProperty("operationId", name);
        out.writeStringProperty(
                "summary",
                "Turns a message of the source " + form.source() + " into one of "
                        + String.join(" or ", form.byTarget().keySet()));
        out.writeArrayPropertyStart("parameters");
        mapping.params().forEach(param -> parameter(param, mapping.outline(), out));
        if (form.byTarget().size() > 1) {
            parameter(Answers.TARGET, mapping.outline(), out);
        }
        out.writeEndArray();
        out.writeObjectPropertyStart("requestBody");
        out.writeBooleanProperty("required", true);
        out.writeObjectPropertyStart("content");
        body(form, out);
        out.writeEndObject();
        out.writeEndObject();
        out.writeObjectPropertyStart("responses");
        out.writeObjectPropertyStart("200");
        out.writeStringProperty("description", "The message that was made");
        out.writeObjectPropertyStart("content");
        Map<String, Optional<Shape>> byFormat = new LinkedHashMap<>();
        form.byTarget()
                .keySet()
                .forEach(target -> byFormat.putIfAbsent(
                        mapping.formatOf(target), mapping.outline().target(target)));
        byFormat.forEach((format, shape) -> content(format, shape, false, out));
        out.writeEndObject();
        out.writeEndObject();
        for (String status : new String[] {"400", "413", "415", "422", "500"}) {
            out.writeObjectPropertyStart(status);
            out.writeStringProperty("description", "Problems, each with its rule and place");
            out.writeObjectPropertyStart("content");
            out.writeObjectPropertyStart(ProblemDocument.TYPE);
            out.writeEndObject();
            out.writeEndObject();
            out.writeEndObject();
        }
        out.writeEndObject();
        out.writeEndObject();
        out.writeEndObject();
    }

    private static void parameter(String name, Outline outline, JsonGenerator out) {
        out.writeStartObject();
        out.writeStringProperty("name", name);
        out.writeStringProperty("in", "query");
        out.writeBooleanProperty("required", outline.requires(name));
        out.writeObjectPropertyStart("schema");
        ShapeSchema.type(outline.typeOf(name).orElse("text"), out);
        out.writeEndObject();
        out.writeEndObject();
    }

    /** What can be posted: a message, or parts of the names of sources where some need one, too. */
    private static void body(ServedMapping.Form form, JsonGenerator out) {
        Mapping mapping = form.mapping();
        Outline outline = mapping.outline();
        if (form.others().isEmpty()) {
            String source = form.source();
            content(mapping.formatOfSource(source), outline.source(source), outline.isSequence(source), out);
            return;
        }
        out.writeObjectPropertyStart(Parts.TYPE);
        out.writeObjectPropertyStart("schema");
        out.writeStringProperty("type", "object");
        out.writeObjectPropertyStart("properties");
        List<String> parts = new ArrayList<>(List.of(form.source()));
        parts.addAll(form.others());
        for (String part : parts) {
            out.writeObjectPropertyStart(part);
            out.writeStringProperty("type", "string");
            out.writeStringProperty(
                    "contentMediaType",
                    MediaTypes.of(mapping.formatOfSource(part)).get(0));
            out.writeEndObject();
        }
        out.writeEndObject();
        out.writeArrayPropertyStart("required");
        parts.forEach(out::writeString);
        out.writeEndArray();
        out.writeEndObject();
        out.writeEndObject();
    }

    /** Only documents of JSON and YAML are what a JSON Schema says of them. */
    private static void content(String format, Optional<Shape> shape, boolean list, JsonGenerator out) {
        out.writeObjectPropertyStart(MediaTypes.of(format).get(0));
        if (shape.isPresent() && (format.equals("json") || format.equals("yaml"))) {
            out.writeName("schema");
            ShapeSchema.write(shape.get(), list, out);
        }
        out.writeEndObject();
    }
}
