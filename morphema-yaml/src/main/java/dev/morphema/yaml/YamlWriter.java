package dev.morphema.yaml;

import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.value.FieldName;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.api.YamlOutputStreamWriter;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.emitter.Emitter;
import org.snakeyaml.engine.v2.events.DocumentEndEvent;
import org.snakeyaml.engine.v2.events.DocumentStartEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.events.ImplicitTuple;
import org.snakeyaml.engine.v2.events.MappingEndEvent;
import org.snakeyaml.engine.v2.events.MappingStartEvent;
import org.snakeyaml.engine.v2.events.ScalarEvent;
import org.snakeyaml.engine.v2.events.SequenceEndEvent;
import org.snakeyaml.engine.v2.events.SequenceStartEvent;
import org.snakeyaml.engine.v2.events.StreamEndEvent;
import org.snakeyaml.engine.v2.events.StreamStartEvent;

/** Writes one YAML stream. Not thread-safe. */
final class YamlWriter implements DocumentWriter {
    private static final ImplicitTuple PLAIN = new ImplicitTuple(true, true);
    private static final ImplicitTuple QUOTED = new ImplicitTuple(false, true);

    private final Emitter emitter;
    private final YamlOutputStreamWriter out;
    private final boolean eachItem;
    private final boolean writesMissing;
    /** How many records and lists are open, without the list whose items are documents. */
    private int depth;

    /** @param eachItem whether each item of a list is a document of its own */
    YamlWriter(OutputStream bytes, boolean eachItem, boolean writesMissing) {
        this.out = new FailingWriter(bytes);
        this.eachItem = eachItem;
        this.writesMissing = writesMissing;
        this.emitter = new Emitter(
                DumpSettings.builder()
                        .setDefaultFlowStyle(FlowStyle.BLOCK)
                        .setIndent(2)
                        .setIndicatorIndent(0)
                        .setSplitLines(false)
                        .setMaxSimpleKeyLength(1_000)
                        .setUseUnicodeEncoding(true)
                        .build(),
                out);
        emit(new StreamStartEvent());
    }

    /** Lets failures through that the library would swallow. */
    private static final class FailingWriter extends YamlOutputStreamWriter {
        FailingWriter(OutputStream bytes) {
            super(bytes, StandardCharsets.UTF_8);
        }

        @Override
        public void processIOException(IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void emit(Event event) {
        emitter.emit(event);
    }

    private void open(Event event) {
        beginDocument();
        emit(event);
        depth++;
    }

    private void close(Event event) {
        emit(event);
        depth--;
        endDocument();
    }

    private void beginDocument() {
        if (depth == 0) {
            emit(new DocumentStartEvent(eachItem, Optional.empty(), Map.of()));
        }
    }

    private void endDocument() {
        if (depth == 0) {
            emit(new DocumentEndEvent(false));
        }
    }

    @Override
    public void beginRecord() {
        open(new MappingStartEvent(Optional.empty(), Optional.empty(), true, FlowStyle.BLOCK));
    }

    @Override
    public void endRecord() {
        close(new MappingEndEvent());
    }

    /** Whether a list is no part of a document, but the sequence of all. */
    private boolean isOfDocuments() {
        return eachItem && depth == 0;
    }

    @Override
    public void beginList() {
        if (!isOfDocuments()) {
            open(new SequenceStartEvent(Optional.empty(), Optional.empty(), true, FlowStyle.BLOCK));
        }
    }

    @Override
    public void endList() {
        if (!isOfDocuments()) {
            close(new SequenceEndEvent());
        }
    }

    @Override
    public void field(FieldName name) {
        text(name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT.local() : name.local());
    }

    @Override
    public void value(Value value) {
        beginDocument();
        if (value.isMissing()) {
            plain("null");
        } else if (value instanceof TextValue text) {
            text(text.text());
        } else {
            plain(value.toString());
        }
        endDocument();
    }

    private void plain(String text) {
        emit(new ScalarEvent(Optional.empty(), Optional.empty(), PLAIN, text, ScalarStyle.PLAIN));
    }

    /** A text that reads as something else, here or in YAML 1.1, stands in quotes. */
    private void text(String text) {
        boolean plain = PlainTexts.isText(text);
        boolean lines = text.indexOf('\n') >= 0 && PlainTexts.canBeBlock(text);
        ScalarStyle style = lines ? ScalarStyle.LITERAL : plain ? ScalarStyle.PLAIN : ScalarStyle.DOUBLE_QUOTED;
        emit(new ScalarEvent(Optional.empty(), Optional.empty(), plain ? PLAIN : QUOTED, text, style));
    }

    @Override
    public boolean writesMissing() {
        return writesMissing;
    }

    @Override
    public void finish() throws IOException {
        emit(new StreamEndEvent());
        out.flush();
    }
}
