package dev.morphema.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A statement of a block: what is written, and what decides it. */
public sealed interface Stmt {
    /** {@return where it stands} */
    Span span();

    /** Calls the method of the visitor for this kind of statement. */
    <R> R accept(Visitor<R> visitor);

    /** What a field must hold. */
    enum Presence {
        /** {@code name}: left out when absent. */
        PLAIN,
        /** {@code name!}: must not be absent, null or blank. */
        REQUIRED,
        /** {@code name?}: left out when absent, null, blank or empty. */
        OPTIONAL
    }

    /**
     * A field, or an attribute.
     *
     * @param attribute whether {@code @} stands before the name
     */
    record Field(
            Span span,
            boolean attribute,
            Name name,
            Presence presence,
            @Nullable TypeRef type,
            Content content) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.field(this);
        }
    }

    /** {@code = expr}: the own text of an element. */
    record OwnText(Span span, Expr value) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.ownText(this);
        }
    }

    /** An unnamed <code>for … { }</code>, {@code for … => expr} or <code>{ … }</code>. */
    record Item(Span span, Content content) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.item(this);
        }
    }

    /** {@code let name = expr}. */
    record Let(Span span, Name name, Expr value) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.let(this);
        }
    }

    /** <code>if c { } else { }</code>; {@code else if} is an else with one statement. */
    record If(
            Span span, Expr condition, Block then, @Nullable Block otherwise) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.ifThen(this);
        }
    }

    /** {@code copy record}, with {@code only} or {@code without} some names. */
    record Copy(Span span, Expr record, Choice choice, List<Name> names) implements Stmt {
        public Copy {
            names = List.copyOf(names);
        }

        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.copy(this);
        }

        /** Which fields are copied. */
        public enum Choice {
            ALL,
            ONLY,
            WITHOUT
        }
    }

    /** {@code require condition else message}, {@code … else warn message}. */
    record Require(Span span, Expr condition, boolean warn, Expr message) implements Stmt {
        @Override
        public <R> R accept(Visitor<R> visitor) {
            return visitor.require(this);
        }
    }

    /** What a field or an item holds. */
    sealed interface Content {}

    /** {@code = expr}. */
    record Rule(Expr value) implements Content {}

    /** <code>{ … }</code>. */
    record Nested(Block block) implements Content {}

    /** {@code for … => expr} or <code>for … { }</code>. */
    record Repeated(Loop loop, Content each) implements Content {}

    /** {@code [ … ]}, a list piece by piece: items and ifs. */
    record Pieces(Span span, List<Stmt> pieces) implements Content {
        public Pieces {
            pieces = List.copyOf(pieces);
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

        R ifThen(If ifThen);

        R copy(Copy copy);

        R require(Require require);
    }
}
