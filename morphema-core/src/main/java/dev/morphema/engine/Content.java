package dev.morphema.engine;

import dev.morphema.convert.Faults;
import dev.morphema.format.EventWriter;
import dev.morphema.function.Want;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Nothing;
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
                if (converter == null || value.isNothing()) {
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
                return Want.scalar(record);
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
            if (value != Nothing.ABSENT) {
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
            return value.isNothing()
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

    /** A loop that makes a list. */
    record Repeated(LoopPlan loop, Content each, boolean counted) implements Content {
        @Override
        public void write(Frame frame, EventWriter out) {
            out.beginList();
            turns(frame, out);
            out.endList();
        }

        void turns(Frame frame, EventWriter out) {
            loop.run(frame, () -> {
                turn(frame, out);
                return true;
            });
        }

        void turn(Frame frame, EventWriter out) {
            each.write(frame, out);
            if (counted) {
                frame.run().countWritten();
            }
        }
    }

    /** A loop that makes an object, with a key for each turn. */
    record Keyed(LoopPlan loop, Node key, Content each) implements Content {
        @Override
        public void write(Frame frame, EventWriter out) {
            out.beginRecord();
            fields(frame, out);
            out.endRecord();
        }

        /** Writes the entries as fields of the record at hand. */
        void fields(Frame frame, EventWriter out) {
            Set<String> keys = new HashSet<>();
            loop.run(frame, () -> {
                Value name = key.scalar(frame);
                if (name.isNothing()) {
                    throw key.fail(
                            Code.DUPLICATE_KEY,
                            "The key of this entry is absent.",
                            "where exists(…) leaves such turns out");
                }
                if (!keys.add(name.toString())) {
                    throw new ProblemException(key.fail(
                                    Code.DUPLICATE_KEY,
                                    "This key has come before in the same object.",
                                    "group by the key first, or make a list instead of an object")
                            .problem()
                            .withValue(name.toString()));
                }
                out.field(FieldName.of(name.toString()));
                writeOrNull(frame, out);
                return true;
            });
        }

        /** A name was written, so there must be a value. */
        private void writeOrNull(Frame frame, EventWriter out) {
            if (each instanceof Rule rule) {
                Value value = rule.value(frame);
                rule.guarded(() -> ValueWriter.write(value == Nothing.ABSENT ? Nothing.NULL : value, out));
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
