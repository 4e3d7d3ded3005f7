package dev.morphema.benchmarks.plain;

import java.io.OutputStream;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/** Maps, lists, texts and numbers as JSON. */
final class Json {
    /** Writes one value a line. */
    private static final JsonFactory LINES =
            JsonFactory.builder().rootValueSeparator("\n").build();

    private Json() {}

    /** {@return a generator of lines, but for the end of the last} */
    static JsonGenerator lines(OutputStream out) {
        return LINES.createGenerator(ObjectWriteContext.empty(), out);
    }

    static void writeObject(Map<String, ?> record, JsonGenerator json) {
        json.writeStartObject();
        record.forEach((name, value) -> {
            json.writeName(name);
            write(value, json);
        });
        json.writeEndObject();
    }

    private static void write(Object value, JsonGenerator json) {
        if (value instanceof BigDecimal number) {
            json.writeNumber(number);
        } else if (value instanceof Long number) {
            json.writeNumber(number);
        } else if (value instanceof Map<?, ?> map) {
            json.writeStartObject();
            map.forEach((name, field) -> {
                json.writeName(name.toString());
                write(field, json);
            });
            json.writeEndObject();
        } else if (value instanceof List<?> list) {
            json.writeStartArray();
            list.forEach(item -> write(item, json));
            json.writeEndArray();
        } else {
            json.writeString(value.toString());
        }
    }
}
