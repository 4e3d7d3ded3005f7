package dev.morphema.event;

import dev.morphema.format.EventWriter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Makes a value of events: a record in an expression is written like one in a target. */
public final class TreeWriter implements EventWriter {
    /** A record or list that is not finished; exactly one of the two is there. */
    private static final class Open {
        private final @Nullable RecordBuilder record;
        private final @Nullable List<Value> list;
        private @Nullable FieldName field;

        Open(@Nullable RecordBuilder record, @Nullable List<Value> list) {
            this.record = record;
            this.list = list;
        }
    }

    private final boolean elementsRepeat;
    private final Deque<Open> open = new ArrayDeque<>();
    private final Layout start;
    private @Nullable Value result;

    /**
     * @param elementsRepeat whether the value is part of a document in which elements may repeat
     * @param start what the layouts of records begin with
     */
    public TreeWriter(boolean elementsRepeat, Layout start) {
        this.start = start;
        this.elementsRepeat = elementsRepeat;
    }

    @Override
    public Object key(FieldName name) {
        return name;
    }

    @Override
    public boolean elementsRepeat() {
        return elementsRepeat;
    }

    /** {@return the value that was written} */
    public Value result() {
        return Objects.requireNonNull(result);
    }

    @Override
    public void beginRecord() {
        open.push(new Open(RecordValue.builder(start, null), null));
    }

    @Override
    public void endRecord() {
        value(Objects.requireNonNull(open.pop().record).build());
    }

    @Override
    public void beginList() {
        open.push(new Open(null, new ArrayList<>()));
    }

    @Override
    public void endList() {
        value(ListValue.owned(Objects.requireNonNull(open.pop().list)));
    }

    @Override
    public void field(FieldName name) {
        Objects.requireNonNull(open.peek()).field = name;
    }

    @Override
    public void value(Value value) {
        Open at = open.peek();
        if (at == null) {
            result = value;
        } else if (at.list != null) {
            at.list.add(value);
        } else {
            Objects.requireNonNull(at.record).add(Objects.requireNonNull(at.field), value);
        }
    }

    @Override
    public void text(Value value) {
        Objects.requireNonNull(Objects.requireNonNull(open.peek()).record).text(value);
    }
}
