package dev.morphema.syntax;

import dev.morphema.value.Value;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** An expression of a mapping. */
public sealed interface Expr {
    /** {@return where it stands} */
    Span span();

    /** Calls the method of the visitor for this kind of expression. */
    <R> R accept(Visitor<R> visitor);

    /**
     * {@code 12.50}, {@code 'raw'}, {@code "plain"}, {@code true}, {@code null}, {@code absent}.
     */
    record Literal(Span span, Value value) implements Expr {
        /** {@return whether it is a text in single quotes, in which braces stand for themselves} */
        public boolean isRaw() {
            return span.text().startsWith("'");
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.literal(this);
        }
    }

    /** {@code "text {expr} text"}; each part is a literal text or another expression. */
    record Template(Span span, List<Expr> parts) implements Expr {
        public Template {
            parts = List.copyOf(parts);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.template(this);
        }
    }

    /** A name that was declared further up: a source, table, parameter, let or loop name. */
    record Reference(Span span, String name) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.reference(this);
        }
    }

    /** {@code .name}: what the block at hand gave its field of that name further up. */
    record OwnField(Span span, Name name) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.ownField(this);
        }
    }

    /** One step down: {@code base.name}. */
    record Step(Span span, Expr base, Axis axis, Name name) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.step(this);
        }
    }

    /** Where a step leads. */
    enum Axis {
        /** {@code .name} */
        FIELD,
        /** {@code .@name} */
        ATTRIBUTE,
        /** {@code .*} */
        ANY_FIELD,
        /** {@code .@*} */
        ANY_ATTRIBUTE,
        /** {@code ..name} */
        DEEP
    }

    /**
     * {@code base[key, …]}: a look-up in a table, or the field of a record with a computed name.
     */
    record Lookup(Span span, Expr base, List<Expr> keys) implements Expr {
        public Lookup {
            keys = List.copyOf(keys);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.lookup(this);
        }
    }

    /** {@code name(argument, …)}: a function or a define. */
    record Call(Span span, Span nameSpan, String name, List<Expr> arguments) implements Expr {
        public Call {
            arguments = List.copyOf(arguments);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.call(this);
        }
    }

    /**
     * {@code expr for x in …}: many values; without an expression, the names of the loop are what
     * it gives.
     */
    record ForEach(Span span, @Nullable Expr yield, Loop loop) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.forEach(this);
        }
    }

    /** {@code [a, b]}. */
    record ListOf(Span span, List<Expr> items) implements Expr {
        public ListOf {
            items = List.copyOf(items);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.listOf(this);
        }
    }

    /** <code>{ name = expr }</code> as a value. */
    record RecordOf(Span span, Block block) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.recordOf(this);
        }
    }

    /** {@code if c then a else b}; without else, absent. */
    record If(
            Span span, Expr condition, Expr then, @Nullable Expr otherwise) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.ifThen(this);
        }
    }

    /** Two operands. */
    record Binary(Span span, Span operatorSpan, Operator operator, Expr left, Expr right) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.binary(this);
        }
    }

    /** {@code not x} or {@code -x}. */
    record Unary(Span span, boolean negation, Expr operand) implements Expr {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.unary(this);
        }
    }

    /** The operators of two operands, as spelt. */
    enum Operator {
        OR("or"),
        AND("and"),
        EQUAL("=="),
        NOT_EQUAL("!="),
        LESS("<"),
        AT_MOST("<="),
        MORE(">"),
        AT_LEAST(">="),
        IN("in"),
        NOT_IN("not in"),
        COALESCE("??"),
        PLUS("+"),
        MINUS("-"),
        TIMES("*"),
        DIVIDE("/"),
        REMAINDER("%");

        private final String spelling;

        Operator(String spelling) {
            this.spelling = spelling;
        }

        /** {@return the operator as a mapping writes it} */
        public String spelling() {
            return spelling;
        }

        /** {@return whether it calculates a number} */
        public boolean isArithmetic() {
            return compareTo(PLUS) >= 0;
        }
    }

    /**
     * Does one thing for each kind of expression.
     *
     * @param <R> what it gives
     */
    interface Visitor<R> {
        R literal(Literal literal);

        R template(Template template);

        R reference(Reference reference);

        R ownField(OwnField field);

        R step(Step step);

        R lookup(Lookup lookup);

        R call(Call call);

        R forEach(ForEach forEach);

        R listOf(ListOf list);

        R recordOf(RecordOf recordOf);

        R ifThen(If ifThen);

        R binary(Binary binary);

        R unary(Unary unary);
    }
}
