package dev.morphema.shape;

import dev.morphema.format.EventWriter;
import dev.morphema.format.Events;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Learns a shape from documents that pass as events, of which it keeps nothing but which records
 * are open. Not thread-safe.
 */
public final class ShapeWriter implements EventWriter {
    /** A record that is open. */
    private static final class Open {
        private final LearnedShape shape;
        /** How many values it has had of each field so far. */
        private final Map<LearnedShape, Long> fields = new LinkedHashMap<>();
        /** The field that came last. */
        private @Nullable FieldName last;

        Open(LearnedShape shape) {
            this.shape = shape;
        }
    }

    private final Deque<Open> open = new ArrayDeque<>();
    /** Where the next value belongs. */
    private LearnedShape place;

    private final Set<LearnedShape> met = Collections.newSetFromMap(new IdentityHashMap<>());

    /** @param root what learns */
    public ShapeWriter(LearnedShape root) {
        this.place = root;
    }

    /** Learns that there are fields, with a value or without. */
    public void name(List<FieldName> fields) {
        fields.forEach(place::fieldOf);
    }

    /** Learns from one more record of a sequence. */
    public void write(Value record) {
        Events.write(record, this);
    }

    /** {@return whether there was a field of some shape so far} */
    public boolean hasMet(LearnedShape field) {
        return met.contains(field);
    }

    private void count(long more) {
        Open around = open.peek();
        if (around != null) {
            around.fields.merge(place, more, Long::sum);
        }
    }

    @Override
    public void beginRecord() {
        count(1);
        open.push(new Open(place));
    }

    @Override
    public void endRecord() {
        Open ended = open.pop();
        ended.shape.learnRecord();
        ended.fields.forEach(LearnedShape::learnPresence);
        place = ended.shape;
    }

    @Override
    public void beginList() {
        count(0);
        place.learnList();
    }

    @Override
    public void endList() {
        // the items were learned one by one
    }

    @Override
    public void field(FieldName name) {
        Open around = Objects.requireNonNull(open.peek());
        place = around.shape.fieldOf(name, around.last);
        around.last = name;
        met.add(place);
    }

    @Override
    public void value(Value value) {
        count(1);
        place.learn(value);
    }

    @Override
    public void text(Value value) {
        Objects.requireNonNull(open.peek()).shape.learnOwn(value);
        field(FieldName.OWN_TEXT);
        value(value);
    }
}
