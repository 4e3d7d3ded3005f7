package dev.morphema.plan;

import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A statement of a block: what is written, and what decides it. */
public sealed interface Emit {
    /** {@return where it stands in the mapping, for messages} */
    Span span();

    /** {@return this statement with its parts as a pass gives them} */
    Emit rebuilt(PlanPass pass);

    /** Calls the method of the visitor for this kind of statement. */
    <R> R accept(Visitor<R> visitor);

    /**
     * A field, or an attribute.
     *
     * @param span of its name
     * @param keptIn the slot of its value for rules that ask for it, or -1
     * @param doneIn the slot in which it is noted that a copy has written it, or -1
     */
    record Field(Span span, FieldName name, Stmt.Presence presence, Output output, int keptIn, int doneIn)
            implements Emit {
        private static int slotIfAny(int slot, PlanPass pass) {
            return slot < 0 ? slot : pass.slot(slot);
        }

        /** {@return whether it is written whatever it holds, unless that is absent} */
        boolean isPlain() {
            return presence == Stmt.Presence.PLAIN;
        }

        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Field(
                    span, name, presence, pass.output(output), slotIfAny(keptIn, pass), slotIfAny(doneIn, pass));
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.field(this);
        }
    }

    /** The own text of an element. */
    record OwnText(Span span, Term value) implements Emit {
        @Override
        public Emit rebuilt(PlanPass pass) {
            return new OwnText(span, pass.term(value));
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.ownText(this);
        }
    }

    /** An item of a list, or the entries of an object. */
    record Item(Span span, Output output, boolean counted) implements Emit {
        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Item(span, pass.output(output), counted);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.item(this);
        }
    }

    /** Names a value, which is calculated when it is used. */
    record Let(Span span, int slot, Term value) implements Emit {
        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Let(span, pass.slot(slot), pass.term(value));
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.let(this);
        }
    }

    /** One of two blocks, by a condition. */
    record Choice(
            Span span, Term condition, Emits then, @Nullable Emits otherwise) implements Emit {
        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Choice(
                    span, pass.term(condition), pass.emits(then), otherwise == null ? null : pass.emits(otherwise));
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.choice(this);
        }
    }

    /**
     * Fields of a record as they are.
     *
     * @param only the fields that are copied, or null if it is not said so
     * @param without the fields that are not copied, or null if it is not said so
     */
    record Copy(
            Span span,
            Term record,
            @Nullable Set<FieldName> only,
            @Nullable Set<FieldName> without) implements Emit {
        /** {@return whether a field of some name may be copied} */
        boolean mayWrite(FieldName name) {
            // A name without namespace copies elements in any.
            return only != null
                    ? only.stream().anyMatch(copied -> copied.local().equals(name.local()))
                    : without == null || !without.contains(name);
        }

        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Copy(span, pass.term(record), only, without);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.copy(this);
        }
    }

    /** A requirement on the data. */
    record Require(Span span, Term condition, boolean warn, Term message) implements Emit {
        @Override
        public Emit rebuilt(PlanPass pass) {
            return new Require(span, pass.term(condition), warn, pass.term(message));
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.require(this);
        }
    }

    /**
     * Does one thing for each kind of statement.
     *
     * @param <R> what it gives
     */
    interface Visitor<R> {
        R field(Field field);

        R ownText(OwnText ownText);

        R item(Item item);

        R let(Let let);

        R choice(Choice choice);

        R copy(Copy copy);

        R require(Require require);
    }
}
