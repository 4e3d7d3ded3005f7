package dev.morphema.syntax;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the rules that make what stands at a place in a document, as far as the text of the mapping
 * tells. Not thread-safe.
 */
public final class WrittenBy {
    private final List<String> names;
    private final List<Span> found = new ArrayList<>();
    /** How many names led to what was found. */
    private int deepest = -1;

    private WrittenBy(List<String> names) {
        this.names = names;
    }

    /**
     * {@return where the rules stand that lead furthest to a place; several where branches write
     * the same field, none for an empty document}
     *
     * @param target what the document is of
     * @param names of the fields that lead to the place, without those that stand for turns of a
     *     list
     */
    public static List<Span> find(Decl.Target target, List<String> names) {
        WrittenBy search = new WrittenBy(names);
        search.content(target.content(), target.name().span(), 0);
        return List.copyOf(search.found);
    }

    private void add(Span at, int depth) {
        if (depth > deepest) {
            found.clear();
            deepest = depth;
        }
        if (depth == deepest) {
            found.add(at);
        }
    }

    /**
     * @param at the place of what holds it
     * @param depth how many names led here
     */
    private void content(Stmt.Content content, Span at, int depth) {
        if (content instanceof Stmt.Rule rule) {
            value(rule.value(), depth);
        } else if (depth == names.size()) {
            add(at, depth);
        } else if (content instanceof Stmt.Nested nested) {
            statements(nested.block().statements(), at, depth);
        } else if (content instanceof Stmt.Repeated repeated) {
            content(repeated.each(), at, repeated.loop().keyedBy() == null ? depth : depth + 1);
        } else if (content instanceof Stmt.Pieces pieces) {
            statements(pieces.pieces(), at, depth);
        }
    }

    private void value(Expr value, int depth) {
        if (value instanceof Expr.If ifThen && ifThen.otherwise() != null) {
            value(ifThen.then(), depth);
            value(ifThen.otherwise(), depth);
        } else if (value instanceof Expr.RecordOf recordOf && depth < names.size()) {
            statements(recordOf.block().statements(), value.span(), depth);
        } else if (value instanceof Expr.ForEach forEach && forEach.yield() != null) {
            value(forEach.yield(), depth);
        } else {
            add(value.span(), depth);
        }
    }

    private void statements(List<Stmt> statements, Span at, int depth) {
        if (!isWritten(statements, depth)) {
            add(at, depth);
        }
    }

    private boolean isWritten(List<Stmt> statements, int depth) {
        boolean written = false;
        for (Stmt statement : statements) {
            written |= isWritten(statement, depth);
        }
        return written;
    }

    private boolean isWritten(Stmt statement, int depth) {
        String name = names.get(depth);
        if (statement instanceof Stmt.Field field && field.name().text().equals(name)) {
            content(field.content(), field.name().span(), depth + 1);
            return true;
        } else if (statement instanceof Stmt.Item item) {
            content(item.content(), item.span(), depth);
            return true;
        } else if (statement instanceof Stmt.Copy copy && copies(copy, name)) {
            add(copy.record().span(), depth + 1);
            return true;
        } else if (statement instanceof Stmt.If ifThen) {
            boolean then = isWritten(ifThen.then().statements(), depth);
            return ifThen.otherwise() != null && isWritten(ifThen.otherwise().statements(), depth) || then;
        }
        return false;
    }

    private static boolean copies(Stmt.Copy copy, String name) {
        boolean named = copy.names().stream().anyMatch(each -> each.text().equals(name));
        return switch (copy.choice()) {
            case ALL -> true;
            case ONLY -> named;
            case WITHOUT -> !named;
        };
    }
}
