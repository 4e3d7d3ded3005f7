package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Steps down into records. A step over many maps over all of them, in order. */
final class PathNodes {
    private PathNodes() {}

    /**
     * A step from each record of a value; what it gives is many as soon as there is a list on the
     * way.
     */
    abstract static class Step extends Node {
        private final Node base;
        /** The slot of the name that the step begins at, as most do, or -1. */
        private final int local;

        Step(Span span, Node base) {
            super(span);
            this.base = base;
            this.local = base instanceof NameNodes.Local name ? name.slot() : -1;
        }

        final Node base() {
            return base;
        }

        /** {@return whether another step begins at the same name, or at the same row of a table} */
        final boolean beginsAs(Step other) {
            return local >= 0
                    ? local == other.local
                    : base instanceof TableLookup lookup
                            && other.base instanceof TableLookup otherLookup
                            && lookup.isSameAs(otherLookup);
        }

        @Override
        final Value compute(Frame frame) {
            Value from = from(frame);
            return from instanceof RecordValue record ? of(frame, record) : ofMany(frame, from);
        }

        private Value ofMany(Frame frame, @Nullable Value from) {
            if (from instanceof Many || from instanceof ListValue) {
                List<Value> found = new ArrayList<>();
                collect(frame, from, found);
                return Many.owned(found);
            }
            return Missing.ABSENT;
        }

        /** {@return the value from which the step is taken; null if a name has none} */
        final @Nullable Value from(Frame frame) {
            return local < 0 ? base.eval(frame) : frame.get(local);
        }

        /**
         * Gives each value that is found in another one to a sink; says whether more are wanted.
         */
        final boolean each(Frame frame, Value from, ItemSink sink) {
            List<Value> found = new ArrayList<>();
            try {
                collect(frame, from, found);
            } catch (ProblemException e) {
                throw located(e);
            }
            return sink.acceptAll(found);
        }

        private void collect(Frame frame, Value from, List<Value> found) {
            if (from instanceof RecordValue record) {
                addFlat(of(frame, record), found);
            } else if (from instanceof Many many) {
                many.items().forEach(item -> collect(frame, item, found));
            } else if (from instanceof ListValue list) {
                list.items().forEach(item -> collect(frame, item, found));
            }
        }

        /** The value that the step finds in one record. */
        abstract Value of(Frame frame, RecordValue record);
    }

    /**
     * {@return whether two expressions are the values in two slots, or the same one step from them}
     */
    static boolean areSameFrom(int slot, Node node, int otherSlot, Node other) {
        if (isLocal(slot, node)) {
            return isLocal(otherSlot, other);
        }
        Named step = Named.from(slot, node);
        Named otherStep = Named.from(otherSlot, other);
        return step != null && otherStep != null && step.name.equals(otherStep.name);
    }

    /** {@return whether an expression is just the value in a slot} */
    static boolean isLocal(int slot, Node node) {
        return node instanceof NameNodes.Local local && local.slot() == slot;
    }

    static void addFlat(Value value, List<Value> found) {
        if (value instanceof Many many) {
            found.addAll(many.items());
        } else if (value instanceof ListValue list) {
            found.addAll(list.items());
        } else if (value != Missing.ABSENT) {
            found.add(value);
        }
    }

    /** {@code .name} and {@code .@name}. */
    static final class Named extends Step {
        private final FieldName name;
        private final SlotSite site;

        Named(Span span, Node base, FieldName name, SlotSite.Numbering sites) {
            super(span, base);
            this.name = name;
            this.site = sites.site(layout -> PathNodes.slots(layout, name));
        }

        /** {@return the expression if it is one step from the value in a slot, or null} */
        static @Nullable Named from(int slot, Node node) {
            return node instanceof Named step && step.base() instanceof NameNodes.Local name && name.slot() == slot
                    ? step
                    : null;
        }

        /** {@return the record from which the step is taken, or null if it is not just one} */
        @Nullable
        RecordValue record(Frame frame) {
            Value from = from(frame);
            return from instanceof RecordValue record ? record : null;
        }

        /**
         * {@return the slot of the field that the step leads to, if it is there {@linkplain
         * RecordValue#isBytes as bytes}, or -1}
         */
        int bytesIn(Frame frame, RecordValue record) {
            int slot = only(frame, record.layout());
            return slot >= 0 && record.isBytes(slot) ? slot : -1;
        }

        /** {@return the slot of the only field in a layout that the step leads to, or -1} */
        int only(Frame frame, Layout layout) {
            return site.in(frame, layout).only();
        }

        /**
         * {@return the slot of the only field in a layout that the step leads to, or -1; asked
         * rarely}
         */
        int onlyIn(Layout layout) {
            int[] slots = PathNodes.slots(layout, name);
            return slots.length == 1 ? slots[0] : -1;
        }

        /** {@return what {@link #eval} gives where a record is in the slot} */
        Value evalIn(Frame frame, RecordValue record) {
            try {
                return of(frame, record);
            } catch (ProblemException e) {
                throw located(e);
            }
        }

        @Override
        RecordSink stream(Frame frame, RecordSink sink) {
            // The reader has gone down the path already.
            return base().stream(frame, sink);
        }

        @Override
        Value of(Frame frame, RecordValue record) {
            SlotSite.Found found = site.in(frame, record.layout());
            return found.only() >= 0 ? record.get(found.only()) : ofAll(record, found.slots());
        }

        private static Value ofAll(RecordValue record, int[] slots) {
            if (slots.length == 0) {
                return Missing.ABSENT;
            }
            List<Value> found = new ArrayList<>();
            for (int slot : slots) {
                addFlat(record.get(slot), found);
            }
            return found.size() == 1 ? found.get(0) : Many.owned(found);
        }
    }

    /**
     * The slots of a name: without namespace it finds elements in any, but only attributes that are
     * in none. A name of the loop that the record is a member of comes before its fields.
     */
    static int[] slots(Layout layout, FieldName name) {
        int[] slots = new int[layout.size()];
        int count = 0;
        for (int i = 0; i < slots.length; i++) {
            if (matches(layout.name(i), name)) {
                if (layout.name(i).isOfLoop()) {
                    return new int[] {i};
                }
                slots[count++] = i;
            }
        }
        return Arrays.copyOf(slots, count);
    }

    private static boolean matches(FieldName field, FieldName wanted) {
        if (!field.local().equals(wanted.local()) || field.attribute() != wanted.attribute()) {
            return false;
        }
        if (wanted.namespace() != null) {
            return wanted.namespace().equals(field.namespace());
        }
        return !wanted.attribute()
                || field.namespace() == null
                || field.namespace().isEmpty();
    }

    /** {@code .*} and {@code .@*}. */
    static final class Any extends Step {
        private final boolean attributes;

        Any(Span span, Node base, boolean attributes) {
            super(span, base);
            this.attributes = attributes;
        }

        @Override
        Value of(Frame frame, RecordValue record) {
            List<Value> found = new ArrayList<>();
            if (attributes) {
                for (int i = 0; i < record.layout().size(); i++) {
                    if (record.layout().name(i).attribute()) {
                        addFlat(record.get(i), found);
                    }
                }
            } else {
                record.parts().stream()
                        .filter(part -> part.name() != null)
                        .forEach(part -> addFlat(part.value(), found));
            }
            return Many.owned(found);
        }
    }

    /** {@code ..name}: at any depth, in document order. */
    static final class Deep extends Step {
        private final FieldName name;

        Deep(Span span, Node base, FieldName name) {
            super(span, base);
            this.name = name;
        }

        @Override
        Value of(Frame frame, RecordValue record) {
            List<Value> found = new ArrayList<>();
            search(record, found);
            return Many.owned(found);
        }

        private void search(RecordValue record, List<Value> found) {
            for (RecordValue.Part part : record.parts()) {
                if (part.name() != null && matches(part.name(), name)) {
                    addFlat(part.value(), found);
                }
                searchIn(part.value(), found);
            }
        }

        private void searchIn(Value value, List<Value> found) {
            if (value instanceof RecordValue record) {
                search(record, found);
            } else if (value instanceof Many many) {
                many.items().forEach(item -> searchIn(item, found));
            } else if (value instanceof ListValue list) {
                list.items().forEach(item -> searchIn(item, found));
            }
        }
    }

    /** {@code record[text]}: the field with a computed name. */
    static final class Computed extends Node {
        private final Node base;
        private final Node name;

        Computed(Span span, Node base, Node name) {
            super(span);
            this.base = base;
            this.name = name;
        }

        @Override
        Value compute(Frame frame) {
            Value record = base.one(frame);
            Value key = name.scalar(frame);
            if (record.isMissing() || key.isMissing()) {
                return Missing.ABSENT;
            }
            if (!(record instanceof RecordValue fields)) {
                throw fail(
                        Code.KIND,
                        "Brackets ask a table or a record, this is "
                                + record.kind().words() + ".",
                        "nth(list, n) takes an item by its position, counted from 1");
            }
            int[] slots = slots(fields.layout(), FieldName.of(key.toString()));
            return slots.length == 0 ? Missing.ABSENT : fields.get(slots[0]);
        }
    }

    /** {@code table[key, …]}. */
    static final class TableLookup extends Node {
        private final int table;
        private final Node[] keys;

        TableLookup(Span span, int table, List<Node> keys) {
            super(span);
            this.table = table;
            this.keys = keys.toArray(Node[]::new);
        }

        private boolean isSameAs(TableLookup other) {
            boolean same = table == other.table && keys.length == other.keys.length;
            for (int i = 0; same && i < keys.length; i++) {
                same = keys[i] instanceof Named key
                        && other.keys[i] instanceof Named otherKey
                        && key.name.equals(otherKey.name)
                        && key.beginsAs(otherKey);
            }
            return same;
        }

        @Override
        Value compute(Frame frame) {
            Value[] asked = new Value[keys.length];
            for (int i = 0; i < keys.length; i++) {
                asked[i] = keys[i].scalar(frame);
                if (asked[i] == Missing.ABSENT) {
                    return Missing.ABSENT;
                }
            }
            return frame.run().find(table, asked);
        }
    }
}
