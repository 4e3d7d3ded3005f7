package dev.morphema.engine;

import dev.morphema.convert.Faults;
import dev.morphema.event.TreeWriter;
import dev.morphema.event.ValueWriter;
import dev.morphema.format.EventWriter;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What a field, an item or a document holds, compiled. */
sealed interface Content {
    /** Writes the value, record or list; nothing if it is absent. */
    void write(Frame frame, EventWriter out);

    /**
     * {@return whether nothing was written inside of a block: no field, or only lists without
     * items}
     */
    static boolean isUnwritten(Value value) {
        if (!(value instanceof RecordValue record)) {
            return Rule.isBlank(value);
        }
        for (int i = 0; i < record.layout().size(); i++) {
            Value field = record.get(i);
            boolean nothing = field == Missing.ABSENT
                    || field instanceof ListValue list && list.items().isEmpty();
            if (!nothing) {
                return false;
            }
        }
        return true;
    }

    /** An expression. */
    record Rule(Node node, @Nullable Converter converter) implements Content {
        /** {@return the value to be written, possibly absent} */
        Value value(Frame frame) {
            Value value = node.one(frame);
            return converter == null && value.isScalar() ? value : converted(value);
        }

        private Value converted(Value found) {
            try {
                Value value = plain(found);
                if (converter == null || value.isMissing()) {
                    return value;
                }
                if (!value.isScalar()) {
                    throw Faults.fault(
                            Code.KIND,
                            "A type is given to one value, this is "
                                    + value.kind().words() + ".",
                            null,
                            null);
                }
                return converter.convert(value);
            } catch (ProblemException e) {
                throw node.located(e);
            }
        }

        /** An XML element that is used as a value gives its text, also in a list. */
        private static Value plain(Value value) {
            if (value instanceof RecordValue record && record.isElement()) {
                return ParameterKind.scalar(record);
            }
            if (value instanceof ListValue list && list.items().stream().anyMatch(Rule::isElement)) {
                return ListValue.of(list.items().stream().map(Rule::plain).toList());
            }
            return value;
        }

        private static boolean isElement(Value value) {
            return value instanceof RecordValue record && record.isElement();
        }

        @Override
        public void write(Frame frame, EventWriter out) {
            if (converter == null && node instanceof ValueNodes.RecordOf record) {
                record.write(frame, out);
                return;
            }
            Value value = value(frame);
            if (value != Missing.ABSENT) {
                guarded(() -> ValueWriter.write(value, out));
            }
        }

        /** Refusals of the writer get this rule as their place. */
        void guarded(Runnable writing) {
            try {
                writing.run();
            } catch (ProblemException e) {
                throw node.located(e);
            }
        }

        static boolean isBlank(Value value) {
            return value.isMissing()
                    || value instanceof TextValue text && WhiteSpace.isBlank(text.text())
                    || value instanceof ListValue list && list.items().isEmpty()
                    || value instanceof RecordValue record && record.isEmpty();
        }
    }

    /** A block. */
    record Nested(Body body) implements Content {
        @Override
        public void write(Frame frame, EventWriter out) {
            out.beginRecord();
            body.run(frame, out);
            out.endRecord();
        }
    }

    /** What a loop makes. */
    sealed interface Looped extends Content {
        LoopPlan loop();

        /** Begins what stands around the turns. */
        void begin(EventWriter out);

        /** Ends it. */
        void end(EventWriter out);

        /** {@return what writes the turns} */
        Flow turns(Frame frame, EventWriter out);

        @Override
        default void write(Frame frame, EventWriter out) {
            begin(out);
            writeTurns(frame, out);
            end(out);
        }

        /** Writes the turns as part of what stands around them. */
        default void writeTurns(Frame frame, EventWriter out) {
            loop().run(frame, turns(frame, out));
        }
    }

    /** A loop that makes a list. */
    record Repeated(LoopPlan loop, Content each, boolean counted) implements Looped {
        @Override
        public void begin(EventWriter out) {
            out.beginList();
        }

        @Override
        public void end(EventWriter out) {
            out.endList();
        }

        @Override
        public Flow turns(Frame frame, EventWriter out) {
            return new Turns(each, counted, frame, out) {
                @Override
                public boolean turn() {
                    writeEach();
                    return written();
                }
            };
        }
    }

    /** Writes the turns of a loop; what stands after them is written by who began the loop. */
    abstract static class Turns implements Flow {
        private final Content each;
        private final boolean counted;
        private final Frame frame;
        private final EventWriter out;

        Turns(Content each, boolean counted, Frame frame, EventWriter out) {
            this.each = each;
            this.counted = counted;
            this.frame = frame;
            this.out = out;
        }

        /** Writes a turn, later if it could not be taken back. */
        final void writeEach() {
            FailureUnits units = frame.run().units();
            if (!units.mustWait(out)) {
                each.write(frame, out);
                return;
            }
            TreeWriter tree =
                    new TreeWriter(out.elementsRepeat(), frame.run().caches().made());
            each.write(frame, tree);
            Value turn = tree.result();
            units.takeUp(() -> ValueWriter.write(turn, out));
        }

        /** A turn is written; says that more are wanted. */
        final boolean written() {
            if (counted) {
                frame.run().countWritten();
            }
            return true;
        }

        @Override
        public RecordSink open() {
            return Streams.open(each, frame, out);
        }

        @Override
        public final boolean close() {
            Streams.close(each, frame, out);
            return written();
        }
    }

    /** A loop that makes an object, with a key for each turn. */
    record Keyed(LoopPlan loop, Node key, Content each, boolean counted) implements Looped {
        @Override
        public void begin(EventWriter out) {
            out.beginRecord();
        }

        @Override
        public void end(EventWriter out) {
            out.endRecord();
        }

        @Override
        public Flow turns(Frame frame, EventWriter out) {
            Set<String> keys = new HashSet<>();
            return new Turns(each, counted, frame, out) {
                @Override
                public boolean turn() {
                    out.field(FieldName.of(nextKey(frame, keys)));
                    writeOrNull(frame, out);
                    return written();
                }

                @Override
                public RecordSink open() {
                    out.field(FieldName.of(nextKey(frame, keys)));
                    return super.open();
                }
            };
        }

        private String nextKey(Frame frame, Set<String> before) {
            Value name = key.scalar(frame);
            if (name.isMissing()) {
                throw key.fail(
                        Code.DUPLICATE_KEY,
                        "The key of this entry is absent.",
                        "where exists(…) leaves such turns out");
            }
            if (!before.add(name.toString())) {
                throw new ProblemException(key.fail(
                                Code.DUPLICATE_KEY,
                                "This key is repeated in the same object.",
                                "group by the key first, or make a list instead of an object")
                        .problem()
                        .withValue(name.toString()));
            }
            frame.run().units().onFailure(() -> before.remove(name.toString()));
            return name.toString();
        }

        /** A name was written, so there must be a value. */
        private void writeOrNull(Frame frame, EventWriter out) {
            if (each instanceof Rule rule) {
                Value value = rule.value(frame);
                rule.guarded(() -> ValueWriter.write(value == Missing.ABSENT ? Missing.NULL : value, out));
            } else {
                each.write(frame, out);
            }
        }
    }

    /** A list piece by piece. */
    record Pieces(Body body) implements Content {
        @Override
        public void write(Frame frame, EventWriter out) {
            out.beginList();
            body.run(frame, out);
            out.endList();
        }
    }
}
