package dev.morphema.engine;

import dev.morphema.format.EventWriter;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Nothing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;

/** Writes whole values as events. */
final class ValueWriter {
    private ValueWriter() {}

    /** Writes a value that is not absent. */
    static void write(Value value, EventWriter out) {
        if (value instanceof RecordValue record) {
            out.beginRecord();
            fields(record, out);
            out.endRecord();
        } else if (value instanceof ListValue list) {
            items(list.items(), out);
        } else if (value instanceof Many many) {
            items(many.items(), out);
        } else {
            out.value(value);
        }
    }

    private static void items(Iterable<Value> items, EventWriter out) {
        out.beginList();
        for (Value item : items) {
            if (item != Nothing.ABSENT) {
                write(item, out);
            }
        }
        out.endList();
    }

    private static void fields(RecordValue record, EventWriter out) {
        int size = record.layout().size();
        if (out.attributesFirst()) {
            for (int i = 0; i < size; i++) {
                if (record.layout().name(i).attribute()) {
                    field(record.layout().name(i), record.get(i), out);
                }
            }
        }
        for (int i = 0; i < size; i++) {
            FieldName name = record.layout().name(i);
            if (!out.attributesFirst() || !name.attribute()) {
                field(name, record.get(i), out);
            }
        }
    }

    /** Writes a field with its value; nothing if that is absent. */
    static void field(FieldName name, Value value, EventWriter out) {
        if (value == Nothing.ABSENT) {
            return;
        }
        if (name.equals(FieldName.OWN_TEXT)) {
            out.text(value);
        } else if (name.attribute()) {
            out.attribute(name, value);
        } else {
            out.field(name);
            write(value, out);
        }
    }
}
