package dev.morphema.syntax;

import java.util.List;

/**
 * What stands between braces.
 *
 * @param span from brace to brace
 * @param statements in written order
 */
public record Block(Span span, List<Stmt> statements) {
    public Block {
        statements = List.copyOf(statements);
    }
}
