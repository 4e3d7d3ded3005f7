package dev.morphema.engine;

import dev.morphema.event.TreeWriter;
import dev.morphema.format.EventWriter;
import dev.morphema.syntax.Span;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;

/** Texts, lists and records that are put together. */
final class ValueNodes {
    private ValueNodes() {}

    /** A template; absent and null print as nothing. */
    static final class Template extends Node {
        private final Node[] parts;

        Template(Span span, List<Node> parts) {
            super(span);
            this.parts = parts.toArray(Node[]::new);
        }

        @Override
        Value compute(Frame frame) {
            Value[] values = new Value[parts.length];
            for (int i = 0; i < values.length; i++) {
                values[i] = parts[i].scalar(frame);
            }
            return TextValue.joined(values);
        }
    }

    /**
     * {@code [ … ]}: many and lists are spread, absent is skipped, null stays; a list written
     * directly inside nests.
     */
    static final class ListOf extends Node {
        private final Node[] items;

        ListOf(Span span, List<Node> items) {
            super(span);
            this.items = items.toArray(Node[]::new);
        }

        @Override
        Value compute(Frame frame) {
            List<Value> values = new ArrayList<>();
            for (Node item : items) {
                Value value = item.eval(frame);
                if (item instanceof ListOf) {
                    values.add(value);
                } else {
                    PathNodes.addFlat(value, values);
                }
            }
            return ListValue.owned(values);
        }
    }

    /** A block as a value. */
    static final class RecordOf extends Node {
        private final Body body;

        RecordOf(Span span, Body body) {
            super(span);
            this.body = body;
        }

        @Override
        Value compute(Frame frame) {
            TreeWriter tree = new TreeWriter(false, frame.run().caches().made());
            tree.beginRecord();
            body.run(frame, tree);
            tree.endRecord();
            return tree.result();
        }

        /** Writes the fields without making the record first. */
        void write(Frame frame, EventWriter out) {
            out.beginRecord();
            body.run(frame, out);
            out.endRecord();
        }
    }

    /**
     * {@code expr for x in …}; a list that a turn gives is spread, unless it is written directly as
     * one.
     */
    static final class ForEach extends Node {
        private final LoopPlan loop;
        private final Node yield;

        ForEach(Span span, LoopPlan loop, Node yield) {
            super(span);
            this.loop = loop;
            this.yield = yield;
        }

        @Override
        Value compute(Frame frame) {
            List<Value> values = new ArrayList<>();
            each(frame, values::add);
            return Many.owned(values);
        }

        @Override
        boolean each(Frame frame, ItemSink sink) {
            return loop.run(frame, () -> give(frame, sink));
        }

        private boolean give(Frame frame, ItemSink sink) {
            Value value = yield.eval(frame);
            if (value instanceof Many many) {
                return sink.acceptAll(many.items());
            }
            if (value instanceof ListValue list && !(yield instanceof ListOf)) {
                return sink.acceptAll(list.items());
            }
            return value == Missing.ABSENT || sink.accept(value);
        }

        @Override
        RecordSink stream(Frame frame, RecordSink sink) {
            return loop.stream(
                    frame,
                    new Flow() {
                        @Override
                        public boolean turn() {
                            return give(frame, sink::accept);
                        }

                        @Override
                        public void end() {
                            sink.end();
                        }
                    },
                    sink.keeps());
        }
    }
}
