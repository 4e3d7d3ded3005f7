package dev.morphema.standard;

import dev.morphema.format.EventWriter;
import dev.morphema.format.Events;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.json.JsonTarget;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlTarget;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;

/** Writes values as documents in a text, for a cell, a column or a message within another. */
final class DocumentTexts {
    private static final Options IN_ONE_LINE = Options.NONE.with("indent", 0).with("declaration", false);

    private static final TargetFormat JSON = JsonTarget.document();
    private static final TargetFormat XML = new XmlTarget();

    private DocumentTexts() {}

    /** {@return a value as JSON (RFC 8259), in one line} */
    static Value json(Value value) {
        return text(JSON, value);
    }

    /** {@return a record with one field as an XML document, in one line and without declaration} */
    static Value xml(Value value) {
        boolean isRoot = value instanceof RecordValue record
                && fields(record) == 1
                && !(record.get(only(record)) instanceof Many many
                        && many.items().size() != 1);
        if (!isRoot) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "An XML document is a record with one field, its root element.")
                            .withHelp("put a record around it: xmlText({ Root { … } })"));
        }
        return text(XML, value);
    }

    private static int fields(RecordValue record) {
        int fields = 0;
        for (int slot = 0; slot < record.layout().size(); slot++) {
            fields += record.get(slot) == Missing.ABSENT ? 0 : 1;
        }
        return fields;
    }

    private static int only(RecordValue record) {
        int slot = 0;
        while (record.get(slot) == Missing.ABSENT) {
            slot++;
        }
        return slot;
    }

    private static Value text(TargetFormat format, Value value) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            DocumentWriter writer = format.open(bytes, new Document(IN_ONE_LINE, List.of(), Map.of()));
            write(value, writer);
            writer.finish();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return TextValue.of(bytes.toString(StandardCharsets.UTF_8).strip());
    }

    /** Several elements of one name are a list where a record has each name once. */
    private static void write(Value value, EventWriter out) {
        if (out.elementsRepeat() || !(value instanceof RecordValue record)) {
            if (value instanceof ListValue list) {
                out.beginList();
                list.items().forEach(item -> write(item, out));
                out.endList();
            } else {
                Events.write(value, out);
            }
            return;
        }
        out.beginRecord();
        for (int slot = 0; slot < record.layout().size(); slot++) {
            field(record.layout().name(slot), record.get(slot), out);
        }
        out.endRecord();
    }

    private static void field(FieldName name, Value value, EventWriter out) {
        if (value == Missing.ABSENT) {
            return;
        }
        if (name.equals(FieldName.OWN_TEXT)) {
            out.text(value);
            return;
        }
        out.field(name);
        if (value instanceof Many several && several.items().size() == 1) {
            write(several.items().get(0), out);
        } else {
            write(value instanceof Many several ? ListValue.of(several.items()) : value, out);
        }
    }
}
