package dev.morphema.cli;

import dev.morphema.Result;
import dev.morphema.output.StagedOutput;
import dev.morphema.output.StagedOutputs;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Writes what a run came to as a file in JSON (RFC 8259), for programs; docs/command.md describes
 * it.
 */
final class Summary {
    private final Path file;
    private final String mapping;
    private final boolean values;

    /**
     * @param mapping how the mapping was named
     * @param values whether data may be shown
     */
    Summary(Path file, String mapping, boolean values) {
        this.file = file;
        this.mapping = mapping;
        this.values = values;
    }

    /** Writes what a run that succeeded came to. */
    void write(Result result, Map<String, String> outputs, List<Problem> ofCheck, double seconds) {
        write(json -> {
            begin(json, "written", seconds);
            json.writeObjectPropertyStart("sources");
            result.read().forEach((source, records) -> records(json, source, records, null));
            json.writeEndObject();
            json.writeObjectPropertyStart("targets");
            outputs.forEach(
                    (target, output) -> records(json, target, result.written().getOrDefault(target, 0L), output));
            json.writeEndObject();
            json.writeArrayPropertyStart("warnings");
            ofCheck.forEach(warning -> problem(json, warning, 1L));
            result.kindsOfWarnings().forEach((warning, count) -> problem(json, warning, count));
            json.writeEndArray();
            json.writeArrayPropertyStart("leftOut");
            result.leftOut().forEach(left -> {
                json.writeStartObject();
                json.writeStringProperty("rule", left.rule().toString());
                json.writeStringProperty("where", left.condition());
                json.writeNumberProperty("count", left.count());
                json.writeEndObject();
            });
            json.writeEndArray();
            json.writeArrayPropertyStart("missed");
            result.missed().forEach(missed -> missed(json, missed));
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    /** Writes why a run has failed. */
    void write(List<Problem> errors, double seconds) {
        write(json -> {
            begin(json, "failed", seconds);
            json.writeArrayPropertyStart("errors");
            errors.forEach(error -> problem(json, error, null));
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    private void begin(JsonGenerator json, String outcome, double seconds) {
        json.writeStartObject();
        json.writeStringProperty("mapping", mapping);
        json.writeStringProperty("outcome", outcome);
        json.writeNumberProperty("seconds", seconds);
    }

    private static void records(JsonGenerator json, String name, long records, @Nullable String output) {
        json.writeObjectPropertyStart(name);
        json.writeNumberProperty("records", records);
        if (output != null) {
            json.writeStringProperty("output", output);
        }
        json.writeEndObject();
    }

    private void missed(JsonGenerator json, Result.Missed missed) {
        json.writeStartObject();
        json.writeStringProperty("table", missed.table());
        json.writeNumberProperty("count", missed.count());
        if (values) {
            json.writeArrayPropertyStart("keys");
            missed.keys().forEach((key, count) -> {
                json.writeStartObject();
                json.writeStringProperty("key", key);
                json.writeNumberProperty("count", count);
                json.writeEndObject();
            });
            json.writeEndArray();
        }
        json.writeEndObject();
    }

    private void problem(JsonGenerator json, Problem problem, @Nullable Long count) {
        new ProblemReport(values).write(json, problem, count);
    }

    private interface Content {
        void writeTo(JsonGenerator json);
    }

    /** Whole, or not at all, as the outputs. */
    private void write(Content content) {
        try (StagedOutputs staged = new StagedOutputs(Set.of(), Set.of())) {
            staged.add(0, StagedOutput.file(file));
            OutputStream bytes = staged.bytes(0);
            try (JsonGenerator json = ProblemReport.generator(bytes)) {
                content.writeTo(json);
            }
            staged.commit();
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "The summary cannot be written: " + e.getMessage() + "."), e);
        }
    }
}
