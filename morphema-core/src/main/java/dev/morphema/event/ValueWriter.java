package dev.morphema.event;

import dev.morphema.format.EventWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.HashSet;
import java.util.Set;
import java.util.function.Predicate;

/** Writes whole values as events. */
public final class ValueWriter {
    private ValueWriter() {}

    /** Writes a value that is not absent. */
    public static void write(Value value, EventWriter out) {
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
            if (item != Missing.ABSENT) {
                write(item, out);
            }
        }
        out.endList();
    }

    private static void fields(RecordValue record, EventWriter out) {
        if (out.attributesFirst()) {
            markup(record, out);
            return;
        }
        refuseClash(record, name -> true);
        for (int i = 0; i < record.layout().fields(); i++) {
            field(record.layout().name(i), record.get(i), out);
        }
    }

    /** Attributes come first; what an element holds keeps its order. */
    private static void markup(RecordValue record, EventWriter out) {
        for (int i = 0; i < record.layout().fields(); i++) {
            FieldName name = record.layout().name(i);
            if (name.attribute()) {
                field(name, record.get(i), out);
            }
        }
        if (record.hasText()) {
            out.mixed();
        }
        parts(record, out);
    }

    private static void parts(RecordValue record, EventWriter out) {
        if (record.isMixed()) {
            record.parts().forEach(part -> part(part, out));
            return;
        }
        for (int i = 0; i < record.layout().fields(); i++) {
            if (!record.layout().name(i).attribute()) {
                field(record.layout().name(i), record.get(i), out);
            }
        }
    }

    /** Writes a child or a piece of text. */
    static void part(RecordValue.Part part, EventWriter out) {
        field(part.name() == null ? FieldName.OWN_TEXT : part.name(), part.value(), out);
    }

    /**
     * Where attributes and children become fields alike, and namespaces are dropped, two may get
     * the same name.
     */
    public static void refuseClash(RecordValue record, Predicate<FieldName> written) {
        if (record.layout().isPlain()) {
            return;
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < record.layout().fields(); i++) {
            FieldName name = record.layout().name(i);
            String local = (name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT : name).local();
            if (record.get(i) != Missing.ABSENT && written.test(name) && !names.add(local)) {
                throw new ProblemException(
                        Problem.error(Code.NOT_WRITABLE, "Two parts of this element would be the same field.")
                                .withValue(local)
                                .withHelp("an attribute, a child element and the own text, which is called text, "
                                        + "may not share a name; give one of them a name of its own"));
            }
        }
    }

    /** Writes a field with its value; nothing if that is absent. */
    public static void field(FieldName name, Value value, EventWriter out) {
        if (value == Missing.ABSENT) {
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
