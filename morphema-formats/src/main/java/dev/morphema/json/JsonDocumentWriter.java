package dev.morphema.json;

import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.PrettyPrinter;
import tools.jackson.core.SerializableString;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.exc.JacksonIOException;
import tools.jackson.core.io.SerializedString;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.core.util.Separators;

/** Writes one JSON document, or the records of a list each on its own line. */
final class JsonDocumentWriter implements DocumentWriter {
    private static final FieldName TEXT = FieldName.of("text");
    private static final int DEFAULT_INDENT = 2;

    private static final JsonFactory FACTORY = JsonFactory.builder()
            .disable(StreamWriteFeature.AUTO_CLOSE_TARGET)
            .disable(StreamWriteFeature.FLUSH_PASSED_TO_STREAM)
            .build();

    private final OutputStream out;
    private final JsonGenerator generator;
    private final boolean lines;
    private final boolean writesMissing;
    /** For each open record, whether its own text was written; several pieces of text cannot be joined afterwards. */
    private final Deque<Boolean> texts = new ArrayDeque<>();

    private int lists;
    private int records;

    JsonDocumentWriter(OutputStream out, Options options, boolean lines) {
        this.out = out;
        this.lines = lines;
        this.writesMissing = options.text("missing", "absent").equals("null");
        int indent = lines ? 0 : options.count("indent", DEFAULT_INDENT);
        this.generator = FACTORY.createGenerator(new Context(indent, lines), out);
    }

    /** How the generator lays out what it writes; the same on every machine. */
    private static final class Context extends ObjectWriteContext.Base {
        private final boolean pretty;
        private final DefaultPrettyPrinter printer;
        private final boolean lines;

        Context(int indent, boolean lines) {
            this.pretty = indent > 0;
            this.lines = lines;
            DefaultIndenter indenter = new DefaultIndenter(" ".repeat(indent), "\n");
            this.printer = new DefaultPrettyPrinter(Separators.createDefaultInstance()
                            .withObjectNameValueSpacing(Separators.Spacing.AFTER)
                            .withObjectEmptySeparator("")
                            .withArrayEmptySeparator(""))
                    .withObjectIndenter(indenter)
                    .withArrayIndenter(indenter);
        }

        @Override
        public PrettyPrinter getPrettyPrinter() {
            return pretty ? printer : null;
        }

        @Override
        public boolean hasPrettyPrinter() {
            return pretty;
        }

        @Override
        public SerializableString getRootValueSeparator(SerializableString fallback) {
            return lines ? new SerializedString("\n") : fallback;
        }
    }

    @Override
    public boolean writesMissing() {
        return writesMissing;
    }

    private void guarded(Runnable writing) {
        try {
            writing.run();
        } catch (JacksonIOException e) {
            throw new UncheckedIOException(e.getCause());
        } catch (JacksonException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This cannot be written as JSON: " + e.getOriginalMessage()), e);
        }
    }

    @Override
    public void beginRecord() {
        guarded(generator::writeStartObject);
        texts.push(false);
    }

    @Override
    public void endRecord() {
        texts.pop();
        guarded(generator::writeEndObject);
        records++;
    }

    @Override
    public void beginList() {
        // The records of a document with one a line stand side by side.
        if (!lines || lists > 0 || !texts.isEmpty()) {
            guarded(generator::writeStartArray);
        }
        lists++;
    }

    @Override
    public void endList() {
        lists--;
        if (!lines || lists > 0 || !texts.isEmpty()) {
            guarded(generator::writeEndArray);
        }
    }

    @Override
    public void field(FieldName name) {
        guarded(() -> generator.writeName(name.local()));
    }

    @Override
    public void value(Value value) {
        if (texts.isEmpty()) {
            records++;
        }
        guarded(() -> {
            if (value instanceof NumberValue number) {
                generator.writeNumber(number.toString());
            } else if (value instanceof BooleanValue truth) {
                generator.writeBoolean(truth.isTrue());
            } else if (value.isNothing()) {
                generator.writeNull();
            } else {
                generator.writeString(value.toString());
            }
        });
    }

    @Override
    public void attribute(FieldName name, Value value) {
        field(name);
        value(value);
    }

    @Override
    public void text(Value value) {
        if (Boolean.TRUE.equals(texts.pop())) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "A record in JSON has one text of its own, this is a second.")
                            .withHelp("put both into one template: = \"{a} {b}\""));
        }
        texts.push(true);
        field(TEXT);
        value(value);
    }

    @Override
    public void finish() throws IOException {
        guarded(generator::close);
        if (!lines || records > 0) {
            out.write("\n".getBytes(StandardCharsets.UTF_8));
        }
    }
}
