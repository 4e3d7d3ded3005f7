package dev.morphema.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Goes through a part of a tree in written order, down to its last expression. A subclass overrides
 * what it looks at, and calls the overridden method where it wants to go on below.
 */
public abstract class TreeWalk {
    private final ExprWalk exprs = new ExprWalk();
    private final StmtWalk statements = new StmtWalk();
    private final ClauseWalk clauses = new ClauseWalk();

    /** Goes through a declaration. */
    public void declaration(Decl declaration) {
        if (declaration instanceof Decl.Target target) {
            loop(target.split());
            expr(target.into());
            content(target.content());
        } else if (declaration instanceof Decl.LoopTable table) {
            loop(table.loop());
            columns(table.columns());
        } else if (declaration instanceof Decl.FileTable table) {
            columns(table.columns());
        } else if (declaration instanceof Decl.InlineTable table) {
            table.entries().forEach(entry -> expr(entry.value()));
        } else if (declaration instanceof Decl.Param param) {
            expr(param.fallback());
        } else if (declaration instanceof Decl.Let let) {
            expr(let.value());
        } else if (declaration instanceof Decl.Define define) {
            expr(define.value());
        }
    }

    private void columns(Decl.Columns columns) {
        exprs(columns.keys());
        expr(columns.from());
        expr(columns.to());
    }

    /** Goes through the clauses of a loop; null is none. */
    protected void loop(@Nullable Loop loop) {
        if (loop != null) {
            clauses(loop.clauses());
        }
    }

    /** Goes through an expression; null is none. */
    public void expr(@Nullable Expr expr) {
        if (expr != null) {
            expr.accept(exprs);
        }
    }

    /** Goes through expressions. */
    public final void exprs(List<Expr> all) {
        all.forEach(this::expr);
    }

    /** A name is used. */
    protected void reference(Expr.Reference reference) {
        // nothing is below a name
    }

    /** A function or define is called. */
    protected void call(Expr.Call call) {
        exprs(call.arguments());
    }

    /** A loop is an expression. */
    protected void forEach(Expr.ForEach forEach) {
        loop(forEach.loop());
        expr(forEach.yield());
    }

    /** Goes through a block; null is none. */
    public void block(@Nullable Block block) {
        if (block != null) {
            block.statements().forEach(this::statement);
        }
    }

    /** Goes through a statement. */
    public void statement(Stmt statement) {
        statement.accept(statements);
    }

    /** Goes through what a field, an item or a document holds. */
    public void content(Stmt.Content content) {
        if (content instanceof Stmt.Rule rule) {
            expr(rule.value());
        } else if (content instanceof Stmt.Nested nested) {
            block(nested.block());
        } else if (content instanceof Stmt.Repeated repeated) {
            repeated(repeated);
        } else if (content instanceof Stmt.Pieces pieces) {
            pieces.pieces().forEach(this::statement);
        }
    }

    /** A loop writes something in each turn. */
    protected void repeated(Stmt.Repeated repeated) {
        loop(repeated.loop());
        content(repeated.each());
    }

    /** Goes through clauses of a loop. */
    public final void clauses(List<Loop.Clause> some) {
        some.forEach(clause -> clause.accept(clauses));
    }

    private final class ExprWalk implements Expr.Visitor<@Nullable Void> {
        @Override
        public @Nullable Void literal(Expr.Literal literal) {
            return null;
        }

        @Override
        public @Nullable Void template(Expr.Template template) {
            exprs(template.parts());
            return null;
        }

        @Override
        public @Nullable Void reference(Expr.Reference reference) {
            TreeWalk.this.reference(reference);
            return null;
        }

        @Override
        public @Nullable Void ownField(Expr.OwnField field) {
            return null;
        }

        @Override
        public @Nullable Void step(Expr.Step step) {
            expr(step.base());
            return null;
        }

        @Override
        public @Nullable Void lookup(Expr.Lookup lookup) {
            expr(lookup.base());
            exprs(lookup.keys());
            return null;
        }

        @Override
        public @Nullable Void call(Expr.Call call) {
            TreeWalk.this.call(call);
            return null;
        }

        @Override
        public @Nullable Void forEach(Expr.ForEach forEach) {
            TreeWalk.this.forEach(forEach);
            return null;
        }

        @Override
        public @Nullable Void listOf(Expr.ListOf list) {
            exprs(list.items());
            return null;
        }

        @Override
        public @Nullable Void recordOf(Expr.RecordOf recordOf) {
            block(recordOf.block());
            return null;
        }

        @Override
        public @Nullable Void ifThen(Expr.If ifThen) {
            expr(ifThen.condition());
            expr(ifThen.then());
            expr(ifThen.otherwise());
            return null;
        }

        @Override
        public @Nullable Void binary(Expr.Binary binary) {
            expr(binary.left());
            expr(binary.right());
            return null;
        }

        @Override
        public @Nullable Void unary(Expr.Unary unary) {
            expr(unary.operand());
            return null;
        }
    }

    private final class StmtWalk implements Stmt.Visitor<@Nullable Void> {
        @Override
        public @Nullable Void field(Stmt.Field field) {
            content(field.content());
            return null;
        }

        @Override
        public @Nullable Void ownText(Stmt.OwnText ownText) {
            expr(ownText.value());
            return null;
        }

        @Override
        public @Nullable Void item(Stmt.Item item) {
            content(item.content());
            return null;
        }

        @Override
        public @Nullable Void let(Stmt.Let let) {
            expr(let.value());
            return null;
        }

        @Override
        public @Nullable Void ifThen(Stmt.If ifThen) {
            expr(ifThen.condition());
            block(ifThen.then());
            block(ifThen.otherwise());
            return null;
        }

        @Override
        public @Nullable Void copy(Stmt.Copy copy) {
            expr(copy.record());
            return null;
        }

        @Override
        public @Nullable Void require(Stmt.Require require) {
            expr(require.condition());
            expr(require.message());
            return null;
        }
    }

    private final class ClauseWalk implements Loop.Visitor {
        @Override
        public void bind(Loop.Bind bind) {
            expr(bind.sequence());
        }

        @Override
        public void where(Loop.Where where) {
            expr(where.condition());
        }

        @Override
        public void let(Loop.Let let) {
            expr(let.value());
        }

        @Override
        public void groupBy(Loop.GroupBy groupBy) {
            groupBy.keys().forEach(key -> expr(key.value()));
        }

        @Override
        public void groupFrom(Loop.GroupFrom groupFrom) {
            expr(groupFrom.condition());
        }

        @Override
        public void sortBy(Loop.SortBy sortBy) {
            sortBy.keys().forEach(key -> expr(key.value()));
        }

        @Override
        public void distinctBy(Loop.DistinctBy distinctBy) {
            exprs(distinctBy.keys());
        }

        @Override
        public void numbered(Loop.Numbered numbered) {
            exprs(numbered.keys());
        }

        @Override
        public void take(Loop.Take take) {
            expr(take.count());
        }

        @Override
        public void keyedBy(Loop.KeyedBy keyedBy) {
            expr(keyedBy.key());
        }
    }
}
