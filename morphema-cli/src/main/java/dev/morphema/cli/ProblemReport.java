package dev.morphema.cli;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.io.OutputStream;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.PrettyPrinter;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;

/**
 * Writes problems for programs: as JSON (RFC 8259), or as SARIF 2.1.0, which code hosts and editors
 * show.
 */
final class ProblemReport {
    /** How problems are told. */
    enum Form {
        TEXT,
        JSON,
        SARIF;

        /** {@return the word for it on the command line} */
        String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private static final String SARIF_SCHEMA = "https://json.schemastore.org/sarif-2.1.0.json";

    private final boolean values;

    /** @param values whether data may be shown */
    ProblemReport(boolean values) {
        this.values = values;
    }

    /** {@return a generator of JSON that people can read; whoever asks closes it} */
    static JsonGenerator generator(OutputStream out) {
        return new JsonFactory()
                .createGenerator(
                        new ObjectWriteContext.Base() {
                            @Override
                            public PrettyPrinter getPrettyPrinter() {
                                return new DefaultPrettyPrinter();
                            }
                        },
                        out);
    }

    /** Writes problems, in their order. */
    void write(List<Problem> problems, Form form, OutputStream out) {
        try (JsonGenerator json = generator(out)) {
            if (form == Form.SARIF) {
                sarif(json, problems);
            } else {
                json.writeStartObject();
                json.writeArrayPropertyStart("problems");
                problems.forEach(problem -> write(json, problem, null));
                json.writeEndArray();
                json.writeEndObject();
            }
        }
    }

    /**
     * Writes one problem as an object.
     *
     * @param count how often it came, or null if that is not counted
     */
    void write(JsonGenerator json, Problem problem, @Nullable Long count) {
        json.writeStartObject();
        json.writeStringProperty("severity", problem.isError() ? "error" : "warning");
        json.writeStringProperty("code", problem.code().printed());
        json.writeStringProperty("message", problem.message());
        property(json, "rule", problem.rule());
        RuleLocation rule = problem.rule();
        if (rule != null) {
            json.writeStringProperty("file", rule.file());
            json.writeNumberProperty("line", rule.line());
            json.writeNumberProperty("column", rule.column());
            json.writeNumberProperty("length", rule.length());
        }
        property(json, "input", problem.input());
        property(json, "value", values ? problem.value() : null);
        property(json, "help", problem.help());
        property(json, "replacement", problem.replacement().orElse(null));
        if (count != null) {
            json.writeNumberProperty("count", count);
        }
        json.writeEndObject();
    }

    private static void property(JsonGenerator json, String name, @Nullable Object value) {
        if (value != null) {
            json.writeStringProperty(name, value.toString());
        }
    }

    private void sarif(JsonGenerator json, List<Problem> problems) {
        json.writeStartObject();
        json.writeStringProperty("$schema", SARIF_SCHEMA);
        json.writeStringProperty("version", "2.1.0");
        json.writeArrayPropertyStart("runs");
        json.writeStartObject();
        json.writeObjectPropertyStart("tool");
        json.writeObjectPropertyStart("driver");
        json.writeStringProperty("name", "Morphema");
        json.writeArrayPropertyStart("rules");
        new TreeSet<>(problems.stream().map(Problem::code).toList()).forEach(code -> rule(json, code));
        json.writeEndArray();
        json.writeEndObject();
        json.writeEndObject();
        json.writeStringProperty("columnKind", "unicodeCodePoints");
        json.writeArrayPropertyStart("results");
        problems.forEach(problem -> result(json, problem));
        json.writeEndArray();
        json.writeEndObject();
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void rule(JsonGenerator json, Code code) {
        json.writeStartObject();
        json.writeStringProperty("id", code.printed());
        json.writeObjectPropertyStart("shortDescription");
        json.writeStringProperty("text", code.printed().replace('-', ' '));
        json.writeEndObject();
        json.writeEndObject();
    }

    private void result(JsonGenerator json, Problem problem) {
        json.writeStartObject();
        json.writeStringProperty("ruleId", problem.code().printed());
        json.writeStringProperty("level", problem.isError() ? "error" : "warning");
        json.writeObjectPropertyStart("message");
        String value = values && problem.value() != null ? " Value: " + problem.value() + "." : "";
        String help = problem.help() == null ? "" : " Try: " + problem.help();
        json.writeStringProperty("text", problem.message() + value + help);
        json.writeEndObject();
        if (problem.rule() != null) {
            RuleLocation rule = Objects.requireNonNull(problem.rule());
            place(json, rule);
            problem.replacement().ifPresent(text -> fix(json, rule, text));
        }
        if (problem.input() != null && problem.input().line() > 0) {
            related(json, problem.input());
        }
        json.writeEndObject();
    }

    private static void place(JsonGenerator json, RuleLocation rule) {
        json.writeArrayPropertyStart("locations");
        json.writeStartObject();
        json.writeObjectPropertyStart("physicalLocation");
        file(json, rule.file());
        region(json, "region", rule);
        json.writeEndObject();
        json.writeEndObject();
        json.writeEndArray();
    }

    /** The place in a sample, a schema or an input that shows the problem. */
    private static void related(JsonGenerator json, InputLocation input) {
        json.writeArrayPropertyStart("relatedLocations");
        json.writeStartObject();
        json.writeObjectPropertyStart("physicalLocation");
        file(json, input.input());
        json.writeObjectPropertyStart("region");
        json.writeNumberProperty("startLine", input.line());
        if (input.column() > 0) {
            json.writeNumberProperty("startColumn", input.column());
        }
        json.writeEndObject();
        json.writeEndObject();
        json.writeEndObject();
        json.writeEndArray();
    }

    private static void file(JsonGenerator json, String file) {
        json.writeObjectPropertyStart("artifactLocation");
        json.writeStringProperty("uri", file.replace('\\', '/').replace(" ", "%20"));
        json.writeEndObject();
    }

    private static void region(JsonGenerator json, String name, RuleLocation rule) {
        json.writeObjectPropertyStart(name);
        json.writeNumberProperty("startLine", rule.line());
        json.writeNumberProperty("startColumn", rule.column());
        json.writeNumberProperty("endColumn", rule.column() + rule.length());
        json.writeEndObject();
    }

    /** What an editor can do by itself when it is told to. */
    private static void fix(JsonGenerator json, RuleLocation rule, String text) {
        json.writeArrayPropertyStart("fixes");
        json.writeStartObject();
        json.writeObjectPropertyStart("description");
        json.writeStringProperty("text", "Write " + text);
        json.writeEndObject();
        json.writeArrayPropertyStart("artifactChanges");
        json.writeStartObject();
        file(json, rule.file());
        json.writeArrayPropertyStart("replacements");
        json.writeStartObject();
        region(json, "deletedRegion", rule);
        json.writeObjectPropertyStart("insertedContent");
        json.writeStringProperty("text", text);
        json.writeEndObject();
        json.writeEndObject();
        json.writeEndArray();
        json.writeEndObject();
        json.writeEndArray();
        json.writeEndObject();
        json.writeEndArray();
    }
}
