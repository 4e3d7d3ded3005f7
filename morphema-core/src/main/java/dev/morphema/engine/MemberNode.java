package dev.morphema.engine;

import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.List;

/**
 * A member of a group that holds several names: a record of them, or the first one with the others
 * as more fields.
 */
final class MemberNode extends Node {
    /** One name with its value. */
    record Part(FieldName name, Node value) {}

    private final boolean whole;
    private final List<Part> parts;

    MemberNode(Span span, boolean whole, List<Part> parts) {
        super(span);
        this.whole = whole;
        this.parts = List.copyOf(parts);
    }

    @Override
    Value compute(Frame frame) {
        RecordBuilder member;
        if (whole) {
            Value first = parts.get(0).value().eval(frame);
            if (!(first instanceof RecordValue record)) {
                return first;
            }
            member = RecordValue.builder(record);
        } else {
            member = RecordValue.builder(frame.run().caches().made(), null);
        }
        for (Part part : whole ? parts.subList(1, parts.size()) : parts) {
            Value value = part.value().eval(frame);
            if (value != Missing.ABSENT) {
                member.put(part.name(), value);
            }
        }
        return member.build();
    }
}
