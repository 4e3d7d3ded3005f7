package dev.morphema.engine;

import dev.morphema.syntax.Span;
import dev.morphema.value.Missing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;

/** What names stand for. */
final class NameNodes {
    private NameNodes() {}

    /** A constant. */
    static final class Constant extends Node {
        private final Value value;

        Constant(Span span, Value value) {
            super(span);
            this.value = value instanceof TextValue text ? TextValue.often(text.text()) : value;
        }

        Value value() {
            return value;
        }

        @Override
        Value compute(Frame frame) {
            return value;
        }
    }

    /** A loop name, or a key of a group. */
    static final class Local extends Node {
        private final int slot;

        Local(Span span, int slot) {
            super(span);
            this.slot = slot;
        }

        int slot() {
            return slot;
        }

        @Override
        Value compute(Frame frame) {
            Value value = frame.get(slot);
            return value == null ? Missing.ABSENT : value;
        }

        @Override
        RecordSink stream(Frame frame, RecordSink sink) {
            // The members of the group come one at a time.
            return sink;
        }
    }

    /** A let of a block or loop, or a field that another rule asks for. */
    static final class Lazy extends Node {
        private final int slot;
        private final Node rule;

        Lazy(Span span, int slot, Node rule) {
            super(span);
            this.slot = slot;
            this.rule = rule;
        }

        @Override
        Value compute(Frame frame) {
            Value value = frame.get(slot);
            if (value == null) {
                value = rule.eval(frame);
                frame.set(slot, value);
            }
            return value;
        }
    }

    /** An argument of a define. */
    static final class Argument extends Node {
        private final int slot;

        Argument(Span span, int slot) {
            super(span);
            this.slot = slot;
        }

        @Override
        Value compute(Frame frame) {
            return frame.argument(slot);
        }
    }

    /** A parameter. */
    static final class Param extends Node {
        private final int index;

        Param(Span span, int index) {
            super(span);
            this.index = index;
        }

        @Override
        Value compute(Frame frame) {
            return frame.run().param(index);
        }
    }

    /** A let of the top level. */
    static final class Global extends Node {
        private final int index;

        Global(Span span, int index) {
            super(span);
            this.index = index;
        }

        @Override
        Value compute(Frame frame) {
            return frame.run().global(index);
        }

        @Override
        RecordSink stream(Frame frame, RecordSink sink) {
            return frame.run().streamGlobal(index, sink);
        }
    }

    /**
     * An expression that gives the same all through a run: calculated when it is first asked for.
     */
    static final class Once extends Node {
        private final Node rule;

        Once(Node rule) {
            super(rule.span());
            this.rule = rule;
        }

        @Override
        Value compute(Frame frame) {
            return frame.run().memory().once(rule, frame);
        }
    }

    /** A source as a whole. */
    static final class Source extends Node {
        private final int index;

        Source(Span span, int index) {
            super(span);
            this.index = index;
        }

        @Override
        Value compute(Frame frame) {
            return frame.run().source(index);
        }

        @Override
        RecordSink stream(Frame frame, RecordSink sink) {
            return sink;
        }
    }

    /** All rows of a table. */
    static final class TableRows extends Node {
        private final int index;

        TableRows(Span span, int index) {
            super(span);
            this.index = index;
        }

        @Override
        Value compute(Frame frame) {
            return frame.run().table(index).rows();
        }
    }
}
