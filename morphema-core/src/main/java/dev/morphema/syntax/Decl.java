package dev.morphema.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A declaration at the top level of a mapping. */
public sealed interface Decl {
    /** {@return where it stands} */
    Span span();

    /** A declaration that gives a name to the rest of the mapping. */
    sealed interface Named extends Decl {
        /** {@return the declared name} */
        Name name();
    }

    /** {@code source name: format(options) { path: type }}. */
    record Source(Span span, Name name, FormatRef format, List<FieldType> types) implements Named {
        public Source {
            types = List.copyOf(types);
        }
    }

    /**
     * The type of a field of a source.
     *
     * @param deep whether the path begins with {@code ..}: the field is meant wherever it stands
     * @param steps at least one
     */
    record FieldType(Span span, boolean deep, List<PathStep> steps, TypeRef type) {
        public FieldType {
            steps = List.copyOf(steps);
        }
    }

    /** One step of a path in a source's types. */
    record PathStep(Expr.Axis axis, Name name) {}

    /**
     * {@code target name: format(options) { … }}.
     *
     * @param split the loop that makes one document a turn, or null
     * @param into the name of each document's file; null exactly if split is
     * @param content of the document
     */
    record Target(
            Span span,
            Name name,
            FormatRef format,
            @Nullable Loop split,
            @Nullable Expr into,
            Stmt.Content content) implements Named {}

    /** {@code table name: csv("file") key a, b}. */
    record FileTable(Span span, Name name, FormatRef format, Columns columns) implements Named {}

    /** {@code table name for x in … key x.code}. */
    record LoopTable(Span span, Name name, Loop loop, Columns columns) implements Named {}

    /**
     * What a table is looked up by.
     *
     * @param keys at least one; for a file the names of columns as references
     * @param from the start of a range, or null
     * @param to the end of a range, or null
     * @param many whether a key may have many rows
     */
    record Columns(
            List<Expr> keys, @Nullable Expr from, @Nullable Expr to, boolean many) {
        public Columns {
            keys = List.copyOf(keys);
        }
    }

    /** <code>table name { key = value }</code>. */
    record InlineTable(Span span, Name name, List<Entry> entries) implements Named {
        public InlineTable {
            entries = List.copyOf(entries);
        }
    }

    /** One line of an inline table. */
    record Entry(Name key, Expr value) {}

    /** {@code param name: type = default}. */
    record Param(
            Span span, Name name, TypeRef type, @Nullable Expr fallback) implements Named {}

    /** {@code let name = expr}. */
    record Let(Span span, Name name, Expr value) implements Named {}

    /** {@code define name(a, b) = expr}; fields in braces are a record. */
    record Define(Span span, Name name, List<Name> parameters, Expr value) implements Named {
        public Define {
            parameters = List.copyOf(parameters);
        }
    }

    /** {@code use "common.morphema"}. */
    record Use(Span span, Span fileSpan, String file) implements Decl {}

    /** {@code prefix name = "uri"}. */
    record Prefix(Span span, Name name, String uri) implements Named {}
}
