package dev.morphema.syntax;

import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Finds the innermost expression around a place. Not thread-safe. */
final class NodeFinder extends TreeWalk {
    private final int offset;
    private @Nullable Expr found;

    private NodeFinder(int offset) {
        this.offset = offset;
    }

    static Optional<Expr> find(MappingTree tree, int offset) {
        NodeFinder finder = new NodeFinder(offset);
        tree.declarations().forEach(finder::declaration);
        return Optional.ofNullable(finder.found);
    }

    @Override
    public void expr(@Nullable Expr expr) {
        if (expr != null && expr.span().contains(offset)) {
            found = expr;
        }
        super.expr(expr);
    }
}
