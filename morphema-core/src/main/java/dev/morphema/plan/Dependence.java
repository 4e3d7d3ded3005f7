package dev.morphema.plan;

import dev.morphema.function.Function;
import dev.morphema.function.Stability;
import java.util.HashSet;
import java.util.Set;
import java.util.function.IntPredicate;

/**
 * On which names of its unit a part of a plan depends, beside those that it gives itself, and
 * whether it may give something else each time although these are the same.
 */
final class Dependence extends PlanPass {
    private final Set<Integer> used = new HashSet<>();
    private final Set<Integer> own = new HashSet<>();
    private boolean varies;

    static Dependence of(Term term) {
        Dependence dependence = new Dependence();
        dependence.term(term);
        return dependence;
    }

    /** {@return whether a term gives the same all through a run} */
    static boolean isInvariant(Term term) {
        return of(term).isOn(slot -> false);
    }

    /** A name that is given outside of what is gone through, and counts as its own. */
    void give(int slot) {
        own.add(slot);
    }

    /** {@return whether it depends on nothing but names that may be} */
    boolean isOn(IntPredicate allowed) {
        return !varies && used.stream().allMatch(slot -> own.contains(slot) || allowed.test(slot));
    }

    /** {@return whether it depends on nothing but its own names} */
    boolean isClosed() {
        return isOn(slot -> false);
    }

    @Override
    public Term term(Term term) {
        if (term instanceof Term.Name name) {
            used.add(name.slot());
        } else if (term instanceof Term.Lazy lazy) {
            used.add(lazy.slot());
        } else if (term instanceof PlannedTerm.Running running) {
            used.add(running.members());
        }
        varies |= term instanceof Term.Argument
                || term instanceof Term.RecordOf
                || term instanceof Term.Defined defined && defined.isVolatile()
                || term instanceof Term.Call call && isVolatile(call.function())
                || term instanceof Term.Aggregate aggregate && isVolatile(aggregate.function());
        return varies ? term : super.term(term);
    }

    private static boolean isVolatile(Function function) {
        return function.traits().stability() == Stability.VOLATILE;
    }

    @Override
    public Pipeline pipeline(Pipeline pipeline) {
        give(pipeline.slot());
        return super.pipeline(pipeline);
    }

    @Override
    public Operator operator(Operator operator) {
        if (operator instanceof Operator.Unnest unnest) {
            give(unnest.slot());
        } else if (operator instanceof Operator.Let let) {
            give(let.slot());
        } else if (operator instanceof Operator.Number number) {
            give(number.slot());
        } else if (operator instanceof Operator.Group group) {
            group.keySlots().forEach(this::give);
            give(group.members());
        }
        return super.operator(operator);
    }
}
