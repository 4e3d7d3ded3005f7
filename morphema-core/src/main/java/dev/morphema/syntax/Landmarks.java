package dev.morphema.syntax;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Where in a text things begin that its layout goes by. */
final class Landmarks extends TreeWalk {
    private final Set<Integer> statements = new HashSet<>();
    private final Set<Integer> operators = new HashSet<>();
    private final Set<Integer> types = new HashSet<>();
    private final Set<Integer> behindColons = new HashSet<>();
    private final Map<Integer, Integer> loopOfClause = new HashMap<>();

    Landmarks(MappingTree tree) {
        tree.declarations().forEach(this::declaration);
    }

    /** {@return whether a declaration, statement or entry begins at an offset} */
    boolean isStatement(int offset) {
        return statements.contains(offset);
    }

    /** {@return whether an operator between two operands begins at an offset} */
    boolean isOperator(int offset) {
        return operators.contains(offset);
    }

    /**
     * {@return whether a format or a type begins at an offset, behind a colon that is no prefix's}
     */
    boolean isBehindColon(int offset) {
        return behindColons.contains(offset);
    }

    /** {@return whether the type of a source's field begins at an offset} */
    boolean isTypeBehind(int offset) {
        return types.contains(offset);
    }

    /** {@return where the loop begins of which a clause begins at an offset, or -1} */
    int loopOf(int offset) {
        return loopOfClause.getOrDefault(offset, -1);
    }

    @Override
    public void declaration(Decl declaration) {
        statements.add(declaration.span().start());
        if (declaration instanceof Decl.Source source) {
            source.types().forEach(type -> {
                statements.add(type.span().start());
                types.add(type.type().span().start());
                behindColons.add(type.type().span().start());
            });
            behindColons.add(source.format().span().start());
        } else if (declaration instanceof Decl.Target target) {
            behindColons.add(target.format().span().start());
        } else if (declaration instanceof Decl.FileTable table) {
            behindColons.add(table.format().span().start());
        } else if (declaration instanceof Decl.InlineTable table) {
            table.entries().forEach(entry -> statements.add(entry.key().span().start()));
        } else if (declaration instanceof Decl.Param param) {
            behindColons.add(param.type().span().start());
        }
        super.declaration(declaration);
    }

    @Override
    protected void loop(@Nullable Loop loop) {
        if (loop != null) {
            loop.clauses()
                    .forEach(clause ->
                            loopOfClause.put(clause.span().start(), loop.span().start()));
        }
        super.loop(loop);
    }

    @Override
    public void statement(Stmt statement) {
        statements.add(statement.span().start());
        if (statement instanceof Stmt.Field field && field.type() != null) {
            behindColons.add(field.type().span().start());
        }
        super.statement(statement);
    }

    @Override
    public void expr(@Nullable Expr expr) {
        if (expr instanceof Expr.Binary binary) {
            operators.add(binary.operatorSpan().start());
        }
        super.expr(expr);
    }
}
