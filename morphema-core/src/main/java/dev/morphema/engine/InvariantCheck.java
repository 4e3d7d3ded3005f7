package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.Resolution;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.IntPredicate;

/**
 * Whether an expression gives the same for a member of a group when the member comes as when the
 * group is complete: it may use the names of its own loop and those of the top level, but none
 * whose value is known only with the group. One that has no names but those of the top level and of
 * its own loops gives the same all through a run.
 */
final class InvariantCheck implements Expr.Visitor<Boolean> {
    private final Resolution resolution;
    private final Set<Integer> own = new HashSet<>();
    private final IntPredicate allowed;

    InvariantCheck(Resolution resolution) {
        this(resolution, slot -> false);
    }

    /**
     * @param allowed says of a slot whether its name may be used, beside those of the expression's
     * own loops
     */
    InvariantCheck(Resolution resolution, IntPredicate allowed) {
        this.resolution = resolution;
        this.allowed = allowed;
    }

    /** A name of the expression's own loop. */
    void allow(int slot) {
        own.add(slot);
    }

    private boolean isAllowed(int slot) {
        return own.contains(slot) || allowed.test(slot);
    }

    boolean isInvariant(Expr expr) {
        return expr.accept(this);
    }

    private boolean all(List<Expr> exprs) {
        return exprs.stream().allMatch(this::isInvariant);
    }

    @Override
    public Boolean literal(Expr.Literal literal) {
        return true;
    }

    @Override
    public Boolean template(Expr.Template template) {
        return all(template.parts());
    }

    @Override
    public Boolean reference(Expr.Reference reference) {
        Binding binding = resolution.binding(reference);
        if (binding instanceof Binding.Local local) {
            return isAllowed(local.slot());
        }
        if (binding instanceof Binding.LocalLet let) {
            return isAllowed(let.slot());
        }
        return !(binding instanceof Binding.Argument);
    }

    @Override
    public Boolean ownField(Expr.OwnField own) {
        return false;
    }

    @Override
    public Boolean step(Expr.Step step) {
        return isInvariant(step.base());
    }

    @Override
    public Boolean lookup(Expr.Lookup lookup) {
        return (resolution.table(lookup).isPresent() || isInvariant(lookup.base())) && all(lookup.keys());
    }

    @Override
    public Boolean call(Expr.Call call) {
        return !resolution.isVolatile(call) && all(call.arguments());
    }

    @Override
    public Boolean forEach(Expr.ForEach forEach) {
        Set<Integer> around = new HashSet<>(own);
        boolean invariant = forEach.loop().clauses().stream().allMatch(this::isInvariant)
                && (forEach.yield() == null || isInvariant(forEach.yield()));
        own.retainAll(around);
        return invariant;
    }

    boolean isInvariant(Loop.Clause clause) {
        if (clause instanceof Loop.SortBy sortBy) {
            return sortBy.keys().stream().allMatch(key -> isInvariant(key.value()));
        }
        if (clause instanceof Loop.DistinctBy distinctBy) {
            return all(distinctBy.keys());
        }
        return clause instanceof Loop.Take take ? isInvariant(take.count()) : passesInvariantly(clause);
    }

    /**
     * {@return whether a clause looks at one turn and at nothing else}, and is invariant; its names
     * are own ones from now on.
     */
    boolean passesInvariantly(Loop.Clause clause) {
        if (clause instanceof Loop.Where where) {
            return isInvariant(where.condition());
        }
        if (clause instanceof Loop.Let let) {
            allow(resolution.slot(let));
            return isInvariant(let.value());
        }
        if (clause instanceof Loop.Bind bind && isInvariant(bind.sequence())) {
            allow(resolution.slot(bind));
            return true;
        }
        return false;
    }

    @Override
    public Boolean listOf(Expr.ListOf list) {
        return all(list.items());
    }

    @Override
    public Boolean recordOf(Expr.RecordOf recordOf) {
        return false;
    }

    @Override
    public Boolean ifThen(Expr.If ifThen) {
        return isInvariant(ifThen.condition())
                && isInvariant(ifThen.then())
                && (ifThen.otherwise() == null || isInvariant(ifThen.otherwise()));
    }

    @Override
    public Boolean binary(Expr.Binary binary) {
        return isInvariant(binary.left()) && isInvariant(binary.right());
    }

    @Override
    public Boolean unary(Expr.Unary unary) {
        return isInvariant(unary.operand());
    }
}
