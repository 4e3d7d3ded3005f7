package dev.morphema.serve;

import dev.morphema.Mapping;
import java.io.StringWriter;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
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
        mapping.params().forEach(param -> parameter(param, out));
        if (form.byTarget().size() > 1) {
            parameter(Answers.TARGET, out);
        }
        out.writeEndArray();
        out.writeObjectPropertyStart("requestBody");
        out.writeBooleanProperty("required", true);
        content(Set.of(mapping.formatOfSource(form.source())), out);
        out.writeEndObject();
        out.writeObjectPropertyStart("responses");
        Set<String> formats = new LinkedHashSet<>();
        form.byTarget().keySet().forEach(target -> formats.add(mapping.formatOf(target)));
        out.writeObjectPropertyStart("200");
        out.writeStringProperty("description", "The message that was made");
        content(formats, out);
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

    private static void parameter(String name, JsonGenerator out) {
        out.writeStartObject();
        out.writeStringProperty("name", name);
        out.writeStringProperty("in", "query");
        out.writeObjectPropertyStart("schema");
        out.writeStringProperty("type", "string");
        out.writeEndObject();
        out.writeEndObject();
    }

    private static void content(Set<String> formats, JsonGenerator out) {
        out.writeObjectPropertyStart("content");
        for (String format : formats) {
            out.writeObjectPropertyStart(MediaTypes.of(format).get(0));
            out.writeEndObject();
        }
        out.writeEndObject();
    }
}
