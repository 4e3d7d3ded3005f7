package dev.morphema.plan;

import dev.morphema.function.Function;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.util.List;

/**
 * An expression whose names are resolved. Names within a unit are slots of its frame, each of which
 * stands for one thing only.
 */
public sealed interface Term
        permits Term.Leaf,
                Term.Name,
                Term.Lazy,
                Term.Template,
                Term.Step,
                Term.Computed,
                Term.Lookup,
                Term.Call,
                Term.Aggregate,
                Term.Defined,
                Term.Inlined,
                Term.Each,
                Term.ListOf,
                Term.RecordOf,
                Term.Member,
                Term.Choice,
                Term.Binary,
                Term.Unary,
                PlannedTerm {
    /** {@return where it stands in the mapping} */
    Span span();

    /** Calls the method of the visitor for this kind of term. */
    <R> R accept(TermVisitor<R> visitor);

    /** {@return this term with its parts as a pass gives them} */
    Term rebuilt(PlanPass pass);

    /** {@return the expression as it is written, in one line} */
    default String written() {
        return span().text().replaceAll("\\s+", " ");
    }

    /** {@return this term, or what a define says of which it is a call} */
    default Term meant() {
        return this;
    }

    /** A term that has no parts. */
    sealed interface Leaf extends Term {
        @Override
        default Term rebuilt(PlanPass pass) {
            return this;
        }
    }

    /** A value that is always the same. */
    record Constant(Span span, Value value) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.constant(this);
        }
    }

    /** A loop name, a number, a key of a group, or the members of a group. */
    record Name(Span span, int slot) implements Term {
        @Override
        public Term rebuilt(PlanPass pass) {
            int other = pass.slot(slot);
            return other == slot ? this : new Name(span, other);
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.name(this);
        }
    }

    /**
     * A let of a block or loop, or a field that another rule asks for: calculated when first used.
     */
    record Lazy(Span span, int slot) implements Term {
        @Override
        public Term rebuilt(PlanPass pass) {
            int other = pass.slot(slot);
            return other == slot ? this : new Lazy(span, other);
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.lazy(this);
        }
    }

    /** An argument of a define. */
    record Argument(Span span, int slot) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.argument(this);
        }
    }

    /** A let of the top level, by its index. */
    record Global(Span span, int index) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.global(this);
        }
    }

    /** A parameter, by its index. */
    record Param(Span span, int index) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.param(this);
        }
    }

    /** All rows of a table, by its index. */
    record Rows(Span span, int table) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.rows(this);
        }
    }

    /** A source, by its index. */
    record Source(Span span, int index) implements Leaf {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.source(this);
        }
    }

    /** A text put together. */
    record Template(Span span, List<Term> parts) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.template(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Template(span, pass.terms(parts));
        }
    }

    /**
     * A step down.
     *
     * @param name of the field; unused where the axis takes any
     */
    record Step(Span span, Term base, Expr.Axis axis, FieldName name) implements Term {
        /** {@return whether it leads to the element or field of its name} */
        boolean isToField() {
            return axis == Expr.Axis.FIELD;
        }

        /** {@return whether it leads to fields or attributes of its name} */
        boolean isNamed() {
            return isToField() || axis == Expr.Axis.ATTRIBUTE;
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.step(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Step(span, pass.term(base), axis, name);
        }
    }

    /** The field of a record that has a computed name. */
    record Computed(Span span, Term base, Term name) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.computed(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Computed(span, pass.term(base), pass.term(name));
        }
    }

    /** A look-up in a table, by its index. */
    record Lookup(Span span, int table, List<Term> keys) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.lookup(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Lookup(span, table, pass.terms(keys));
        }
    }

    /** A function of single values. */
    record Call(Span span, Function.Scalar function, List<Term> arguments) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.call(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Call(span, function, pass.terms(arguments));
        }
    }

    /**
     * A function over many values.
     *
     * @param arguments the first gives the values
     */
    record Aggregate(Span span, Function.Aggregate function, List<Term> arguments) implements Term {
        /** {@return what gives the values} */
        Term items() {
            return arguments.get(0).meant();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.aggregate(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Aggregate(span, function, pass.terms(arguments));
        }
    }

    /**
     * A call of a define, by its index.
     *
     * @param isVolatile whether it gives something else each time
     */
    record Defined(Span span, int index, List<Term> arguments, boolean isVolatile) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.defined(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Defined(span, index, pass.terms(arguments), isVolatile);
        }
    }

    /**
     * A call of a define, as what that says.
     *
     * @param span of the call
     */
    record Inlined(Span span, Term body) implements Term {
        @Override
        public Term meant() {
            return body.meant();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.inlined(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Inlined(span, pass.term(body));
        }
    }

    /** What a loop gives, an item a turn. */
    record Each(Span span, Pipeline loop, Term item) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.each(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Each(span, pass.pipeline(loop), pass.term(item));
        }
    }

    /** A list. */
    record ListOf(Span span, List<Term> items) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.listOf(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new ListOf(span, pass.terms(items));
        }
    }

    /** A record. */
    record RecordOf(Span span, Emits body) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.recordOf(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new RecordOf(span, pass.emits(body));
        }
    }

    /**
     * A member of a group that holds several names of a loop.
     *
     * @param whole whether it is the value of the first name, with the others as more fields; if
     *     not, it is a record of all
     */
    record Member(Span span, boolean whole, List<Part> parts) implements Term {
        /** One name with its value. */
        public record Part(FieldName name, Term value) {}

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.member(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Member(
                    span,
                    whole,
                    parts.stream()
                            .map(part -> new Part(part.name(), pass.term(part.value())))
                            .toList());
        }
    }

    /** One of two, by a condition. */
    record Choice(Span span, Term condition, Term then, Term otherwise) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.choice(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Choice(span, pass.term(condition), pass.term(then), pass.term(otherwise));
        }
    }

    /** An operator with two operands. */
    record Binary(Span span, Expr.Operator operator, Term left, Term right) implements Term {
        /** {@return whether it asks if one value is among others} */
        public boolean isMembership() {
            return operator == Expr.Operator.IN || operator == Expr.Operator.NOT_IN;
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.binary(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Binary(span, operator, pass.term(left), pass.term(right));
        }
    }

    /** {@code not} or a sign. */
    record Unary(Span span, boolean negation, Term operand) implements Term {
        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.unary(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Unary(span, negation, pass.term(operand));
        }
    }
}
