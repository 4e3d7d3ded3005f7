package dev.morphema.format;

import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;

/** From values, as a reader gives them, to events. */
public final class Events {
    private Events() {}

    /** Gives a value as events: a record, a list, or a scalar that is not absent. */
    public static void write(Value value, EventWriter out) {
        if (value instanceof RecordValue record) {
            out.beginRecord();
            for (int slot = 0; slot < record.layout().size(); slot++) {
                field(record.layout().name(slot), record.get(slot), out);
            }
            out.endRecord();
        } else if (value instanceof ListValue list) {
            out.beginList();
            list.items().forEach(item -> write(item, out));
            out.endList();
        } else {
            out.value(value);
        }
    }

    private static void field(FieldName name, Value value, EventWriter out) {
        if (value instanceof Many several) {
            several.items().forEach(item -> field(name, item, out));
        } else if (name.attribute()) {
            out.attribute(name, value);
        } else if (name.equals(FieldName.OWN_TEXT)) {
            out.text(value);
        } else if (value != Missing.ABSENT) {
            out.field(name);
            write(value, out);
        }
    }
}
