package dev.morphema.engine;

import dev.morphema.event.TreeWriter;
import dev.morphema.event.ValueWriter;
import dev.morphema.format.EventWriter;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt.Presence;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/** The statements. */
final class Actions {
    private Actions() {}

    /** {@code name = …}, <code>name { … }</code>, {@code name for …} and {@code @name = …}. */
    static final class Field extends Action {
        private final Span span;
        private final FieldName name;
        private final Presence presence;
        private final Content content;
        /** Where the value is kept for rules that ask for it, or -1. */
        private final int keptIn;
        /** Where it is noted that a copy has written this field already, or -1. */
        private final int doneIn;
        /** The rule, if what it leads to may go through as bytes. */
        private final PathNodes.@Nullable Named step;

        Field(Span span, FieldName name, Presence presence, Content content, int keptIn, int doneIn) {
            this.span = span;
            this.name = name;
            this.presence = presence;
            this.content = content;
            this.keptIn = keptIn;
            this.doneIn = doneIn;
            this.step = presence == Presence.PLAIN
                            && keptIn < 0
                            && doneIn < 0
                            && content instanceof Content.Rule rule
                            && rule.converter() == null
                            && rule.node() instanceof PathNodes.Named named
                    ? named
                    : null;
        }

        FieldName name() {
            return name;
        }

        @Override
        Content content() {
            return content;
        }

        @Override
        boolean writesAttributes() {
            return name.attribute();
        }

        @Override
        boolean isAttribute() {
            return name.attribute();
        }

        @Override
        void run(Frame frame, EventWriter out, Part pass) {
            if (pass == Part.ALL || name.attribute() == (pass == Part.ATTRIBUTES)) {
                if (doneIn < 0) {
                    write(frame, out);
                } else {
                    writeOnce(frame, out);
                }
            }
        }

        /**
         * Writes the field unless that was done already: it may stand here, or in place of a copied
         * field.
         */
        void writeOnce(Frame frame, EventWriter out) {
            if (frame.get(doneIn) == null) {
                write(frame, out);
                frame.set(doneIn, BooleanValue.TRUE);
            }
        }

        private void write(Frame frame, EventWriter out) {
            if (content instanceof Content.Rule rule) {
                writeRule(rule, frame, out);
            } else {
                writeContent(frame, out);
            }
        }

        private void writeContent(Frame frame, EventWriter out) {
            if (presence == Presence.PLAIN) {
                out.field(name);
                content.write(frame, out);
            } else {
                writeIfFilled(frame, out);
            }
        }

        /**
         * {@return the rule, if all it does is to take one step, and what that leads to is written
         * each time; else null}
         */
        PathNodes.@Nullable Named step() {
            return step;
        }

        private void writeRule(Content.Rule rule, Frame frame, EventWriter out) {
            Value value = keptIn >= 0 ? kept(rule, frame) : rule.value(frame);
            if (presence == Presence.PLAIN && value != Missing.ABSENT) {
                write(rule, value, out);
            } else {
                writeIfThere(rule, value, out);
            }
        }

        private void writeIfThere(Content.Rule rule, Value found, EventWriter out) {
            Value value = found;
            if (presence != Presence.PLAIN && Content.Rule.isBlank(value)) {
                if (presence == Presence.REQUIRED) {
                    throw missing();
                }
                value = Missing.ABSENT;
            }
            if (value == Missing.ABSENT) {
                if (!out.writesMissing()) {
                    return;
                }
                value = Missing.NULL;
            }
            write(rule, value, out);
        }

        private void write(Content.Rule rule, Value value, EventWriter out) {
            try {
                if (name.attribute() || !value.isScalar()) {
                    ValueWriter.field(name, value, out);
                } else {
                    out.field(name, value);
                }
            } catch (ProblemException e) {
                throw rule.node().located(e);
            }
        }

        private Value kept(Content.Rule rule, Frame frame) {
            Value value = frame.get(keptIn);
            if (value == null) {
                value = rule.value(frame);
                frame.set(keptIn, value);
            }
            return value;
        }

        /**
         * Whether something was written inside is known only afterwards, so it is made as a value
         * first.
         */
        private void writeIfFilled(Frame frame, EventWriter out) {
            TreeWriter tree =
                    new TreeWriter(out.elementsRepeat(), frame.run().caches().made());
            content.write(frame, tree);
            Value value = tree.result();
            if (!Content.isUnwritten(value)) {
                ValueWriter.field(name, value, out);
            } else if (presence == Presence.REQUIRED) {
                throw missing();
            } else if (out.writesMissing()) {
                ValueWriter.field(name, Missing.NULL, out);
            }
        }

        private ProblemException missing() {
            return new ProblemException(span.error(
                            Code.MISSING_VALUE, "The field " + name.local() + " must have a value, and has none here.")
                    .withHelp("the ! after its name asks for a value"));
        }

        @Override
        RecordSink open(Frame frame, EventWriter out) {
            out.field(name);
            return Streams.open(content, frame, out);
        }

        @Override
        void close(Frame frame, EventWriter out) {
            Streams.close(content, frame, out);
        }
    }

    /** {@code = expr}. */
    static final class OwnText extends Action {
        private final Node value;
        /** The value, if what it leads to may go through as bytes. */
        private final PathNodes.@Nullable Named step;

        @Override
        boolean writesText() {
            return true;
        }

        OwnText(Node value) {
            this.value = value;
            this.step = value instanceof PathNodes.Named named ? named : null;
        }

        @Override
        void run(Frame frame, EventWriter out, Part pass) {
            if (pass == Part.ATTRIBUTES) {
                return;
            }
            RecordValue record = step == null ? null : step.record(frame);
            int slot = step == null || record == null ? -1 : step.bytesIn(frame, record);
            Value text = slot < 0 ? value.scalar(frame) : Missing.ABSENT;
            try {
                if (record != null && slot >= 0) {
                    out.text(record, slot);
                } else if (text != Missing.ABSENT) {
                    out.text(text);
                }
            } catch (ProblemException e) {
                throw value.located(e);
            }
        }
    }

    /** An item of a list, or {@code for … keyed by} in a record. */
    static final class Item extends Action {
        private final Content content;
        private final boolean counted;

        Item(Content content, boolean counted) {
            this.content = content;
            this.counted = counted;
        }

        @Override
        void run(Frame frame, EventWriter out, Part pass) {
            if (pass == Part.ATTRIBUTES) {
                return;
            }
            if (content instanceof Content.Looped looped) {
                looped.writeTurns(frame, out);
            } else {
                content.write(frame, out);
                if (counted) {
                    frame.run().countWritten();
                }
            }
        }

        @Override
        Content content() {
            return content;
        }

        @Override
        RecordSink open(Frame frame, EventWriter out) {
            return Streams.turns((Content.Looped) content, frame, out);
        }

        @Override
        void close(Frame frame, EventWriter out) {
            // the list around it is not this item's
        }
    }

    /** {@code if … else}. */
    static final class Choice extends Action {
        private final Node condition;
        private final Body then;
        private final @Nullable Body otherwise;

        Choice(Node condition, Body then, @Nullable Body otherwise) {
            this.condition = condition;
            this.then = then;
            this.otherwise = otherwise;
        }

        @Override
        boolean writesAttributes() {
            return then.writesAttributes() || otherwise != null && otherwise.writesAttributes();
        }

        @Override
        boolean writesText() {
            return then.writesText() || otherwise != null && otherwise.writesText();
        }

        @Override
        void run(Frame frame, EventWriter out, Part pass) {
            if (pass == Part.ATTRIBUTES && !writesAttributes()) {
                return;
            }
            if (condition.holds(frame)) {
                then.run(frame, out, then.writesAttributes() || pass != Part.CONTENT ? pass : Part.ALL);
            } else if (otherwise != null) {
                otherwise.run(frame, out, otherwise.writesAttributes() || pass != Part.CONTENT ? pass : Part.ALL);
            }
        }
    }

    /** {@code require … else …}. */
    static final class Require extends Action {
        private final Span span;
        private final Node condition;
        private final boolean warn;
        private final Node message;

        Require(Span span, Node condition, boolean warn, Node message) {
            this.span = span;
            this.condition = condition;
            this.warn = warn;
            this.message = message;
        }

        @Override
        void run(Frame frame, EventWriter out, Part pass) {
            if (pass == Part.ATTRIBUTES || condition.holds(frame)) {
                return;
            }
            Value words = message.scalar(frame);
            String value =
                    words.isMissing() ? "" : ParameterKind.TEXT.take(words).toString();
            if (warn) {
                frame.run()
                        .warn(Problem.warning(Code.REQUIREMENT, "A requirement of the mapping is not met.")
                                .at(span.location())
                                .withValue(value));
            } else {
                throw new ProblemException(span.error(Code.REQUIREMENT, "A requirement of the mapping is not met.")
                        .withValue(value));
            }
        }
    }
}
