package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.Resolution;
import dev.morphema.function.Function;
import dev.morphema.function.Trait;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Finds out, while one unit is compiled, which uses of the members of its groups need no kept
 * members.
 */
final class MemberUses {
    private final Resolution resolution;
    private final Map<Integer, GroupUse> bySlot = new HashMap<>();
    private final List<GroupUse> all = new ArrayList<>();

    MemberUses(Resolution resolution) {
        this.resolution = resolution;
    }

    /** {@return the uses, none so far, of the members that a group clause puts into a slot} */
    GroupUse begin(int slot) {
        GroupUse use = new GroupUse(slot);
        bySlot.put(slot, use);
        all.add(use);
        return use;
    }

    /** The whole unit is compiled. */
    void complete() {
        all.forEach(GroupUse::complete);
    }

    /**
     * Compiles something that takes the members of a group one at a time, which is no use of them
     * all.
     */
    <T> T without(GroupUse use, Supplier<T> compiling) {
        bySlot.remove(use.slot());
        try {
            return compiling.get();
        } finally {
            bySlot.put(use.slot(), use);
        }
    }

    /** A name is used as a value; if it means members, they must be there. */
    void valueOf(int slot) {
        GroupUse use = bySlot.get(slot);
        if (use != null) {
            use.keep();
        }
    }

    /**
     * {@return the group over whose members a function goes, if it can take them one at a time as
     * they come}
     *
     * @param call of an aggregate
     */
    @Nullable
    GroupUse takenByFunction(Expr.Call call) {
        boolean constants = call.arguments().stream().skip(1).allMatch(Expr.Literal.class::isInstance);
        return constants ? takenFrom(call.arguments().get(0)) : null;
    }

    /**
     * Whether a function wants the first turn of a loop whose last clause sorts, so that no value
     * is calculated from its turns.
     */
    static boolean wantsOnlyFirst(Expr.Call call, Function.Aggregate function) {
        return function.traits().has(Trait.ONLY_FIRST)
                && call.arguments().get(0) instanceof Expr.ForEach forEach
                && forEach.yield() == null
                && forEach.loop().clauses().get(forEach.loop().clauses().size() - 1) instanceof Loop.SortBy;
    }

    private @Nullable GroupUse takenFrom(Expr items) {
        if (items instanceof Expr.Reference reference) {
            return members(reference);
        }
        if (items instanceof Expr.Step step) {
            return takenFrom(step.base());
        }
        if (items instanceof Expr.ForEach forEach) {
            InvariantCheck check = new InvariantCheck(resolution);
            GroupUse use = membersOf(forEach.loop(), check);
            boolean plain = forEach.loop().clauses().stream().skip(1).allMatch(clause -> passes(clause, check));
            boolean invariant = plain && (forEach.yield() == null || check.isInvariant(forEach.yield()));
            return invariant ? use : null;
        }
        return null;
    }

    /**
     * {@return the group whose members a loop groups once more, or of which it wants the first in
     * some order, if it can take them one at a time as they come}
     */
    @Nullable
    GroupUse takenByLoop(Loop loop) {
        GroupUse inOrder = takenInOrder(loop, false);
        return inOrder == null ? taken(loop, firstGroup(loop)) : inOrder;
    }

    /**
     * {@return the group of whose members a loop wants the first in some order, if it can take them
     * one at a time as they come}
     *
     * @param onlyFirst whether the first turn is all that is wanted of the loop
     */
    @Nullable
    GroupUse takenInOrder(Loop loop, boolean onlyFirst) {
        int sort = firstOf(loop, Loop.SortBy.class::isInstance);
        List<Loop.Clause> after =
                loop.clauses().subList(sort + 1, loop.clauses().size());
        boolean first =
                after.isEmpty() ? onlyFirst : after.get(0) instanceof Loop.Take take && SortStages.mostFirst(take) > 0;
        return first ? taken(loop, sort) : null;
    }

    /**
     * {@return the group whose members a loop goes through up to a clause, which holds what it
     * makes of them}
     */
    private @Nullable GroupUse taken(Loop loop, int holding) {
        InvariantCheck check = new InvariantCheck(resolution);
        GroupUse use = membersOf(loop, check);
        if (use == null || holding < 0) {
            return null;
        }
        boolean invariant = loop.clauses().subList(1, holding).stream().allMatch(clause -> passes(clause, check))
                && holds(loop.clauses().get(holding), check);
        return invariant ? use : null;
    }

    /** {@return the index of the first clause that makes groups, or -1} */
    static int firstGroup(Loop loop) {
        return firstOf(loop, MemberUses::isGrouping);
    }

    /** {@return the group whose members a loop goes through, or null} */
    @Nullable
    GroupUse goneThroughBy(Loop loop) {
        return membersOf(loop, new InvariantCheck(resolution));
    }

    private static int firstOf(Loop loop, Predicate<Loop.Clause> kind) {
        for (int i = 0; i < loop.clauses().size(); i++) {
            if (kind.test(loop.clauses().get(i))) {
                return i;
            }
        }
        return -1;
    }

    static boolean isGrouping(Loop.@Nullable Clause clause) {
        return clause instanceof Loop.GroupBy || clause instanceof Loop.GroupFrom;
    }

    private @Nullable GroupUse membersOf(Loop loop, InvariantCheck check) {
        check.allow(resolution.slot(loop.first()));
        return !loop.first().optional() && loop.first().sequence() instanceof Expr.Reference reference
                ? members(reference)
                : null;
    }

    /** {@return the group whose members a name means, or null} */
    @Nullable
    GroupUse members(Expr.Reference reference) {
        return resolution.binding(reference) instanceof Binding.Local local ? bySlot.get(local.slot()) : null;
    }

    /** Whether a clause looks at one member and at nothing else. */
    private static boolean passes(Loop.Clause clause, InvariantCheck check) {
        return !(clause instanceof Loop.Bind bind && bind.optional()) && check.passesInvariantly(clause);
    }

    private static boolean holds(Loop.Clause clause, InvariantCheck check) {
        if (clause instanceof Loop.GroupBy groupBy) {
            return groupBy.keys().stream().allMatch(key -> check.isInvariant(key.value()));
        }
        return clause instanceof Loop.GroupFrom groupFrom
                ? check.isInvariant(groupFrom.condition())
                : check.isInvariant(clause);
    }
}
