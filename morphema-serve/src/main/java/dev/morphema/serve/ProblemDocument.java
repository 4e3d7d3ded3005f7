package dev.morphema.serve;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.io.StringWriter;
import java.util.List;
import java.util.Set;
import org.eclipse.jetty.http.HttpStatus;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/** Problems as a document (RFC 9457). */
final class ProblemDocument {
    static final String TYPE = "application/problem+json";

    /** What is wrong with a document before anybody looks what is in it. */
    private static final Set<Code> NOT_WELL_FORMED = Set.of(
            Code.BAD_CSV,
            Code.BAD_JSON,
            Code.BAD_XML,
            Code.BAD_YAML,
            Code.BAD_LINE,
            Code.BAD_WORKBOOK,
            Code.BAD_ENCODING);

    private static final JsonFactory JSON = new JsonFactory();

    private ProblemDocument() {}

    /** {@return the status that says whose matter a problem is (RFC 9110)} */
    static int status(Problem problem) {
        if (NOT_WELL_FORMED.contains(problem.code())) {
            return HttpStatus.BAD_REQUEST_400;
        }
        return switch (problem.code().area()) {
            case DATA ->
                problem.code() == Code.MEMORY
                        ? HttpStatus.INTERNAL_SERVER_ERROR_500
                        : HttpStatus.UNPROCESSABLE_ENTITY_422;
            case USAGE ->
                problem.code() == Code.CANCELLED ? HttpStatus.SERVICE_UNAVAILABLE_503 : HttpStatus.BAD_REQUEST_400;
            default -> HttpStatus.INTERNAL_SERVER_ERROR_500;
        };
    }

    /** {@return the document for problems, the first of which decides its status} */
    static String of(int status, List<Problem> problems) {
        Problem first = problems.get(0);
        StringWriter text = new StringWriter();
        try (JsonGenerator out = JSON.createGenerator(ObjectWriteContext.empty(), text)) {
            out.writeStartObject();
            out.writeStringProperty(
                    "type", "urn:morphema:problem:" + first.code().printed());
            out.writeStringProperty("title", HttpStatus.getMessage(status));
            out.writeNumberProperty("status", status);
            out.writeStringProperty("detail", first.message());
            out.writeArrayPropertyStart("problems");
            problems.forEach(problem -> write(problem, out));
            out.writeEndArray();
            out.writeEndObject();
        }
        return text + "\n";
    }

    private static void write(Problem problem, JsonGenerator out) {
        out.writeStartObject();
        out.writeStringProperty("code", problem.code().printed());
        out.writeStringProperty("severity", problem.isError() ? "error" : "warning");
        out.writeStringProperty("message", problem.message());
        RuleLocation rule = problem.rule();
        if (rule != null) {
            out.writeObjectPropertyStart("rule");
            out.writeStringProperty("mapping", name(rule.file()));
            out.writeNumberProperty("line", rule.line());
            out.writeNumberProperty("column", rule.column());
            out.writeEndObject();
        }
        InputLocation place = problem.input();
        if (place != null) {
            out.writeObjectPropertyStart("place");
            out.writeStringProperty("source", place.input());
            number("record", place.record(), out);
            number("line", place.line(), out);
            number("column", place.column(), out);
            text("field", place.field(), out);
            out.writeEndObject();
        }
        text("value", problem.value(), out);
        text("help", problem.help(), out);
        out.writeEndObject();
    }

    /** Nobody outside need know the folders of this machine. */
    private static String name(String file) {
        return file.substring(Math.max(file.lastIndexOf('/'), file.lastIndexOf('\\')) + 1);
    }

    private static void number(String name, long value, JsonGenerator out) {
        if (value > 0) {
            out.writeNumberProperty(name, value);
        }
    }

    private static void text(String name, @Nullable String value, JsonGenerator out) {
        if (value != null) {
            out.writeStringProperty(name, value);
        }
    }
}
