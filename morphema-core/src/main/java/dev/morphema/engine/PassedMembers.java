package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.Resolution;
import dev.morphema.function.Function;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Stmt;
import dev.morphema.syntax.TreeWalk;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds the one loop through which all members of a group go in order, if beside it only functions
 * ask for them. The members can then be passed on one at a time, and need not be held together,
 * however many they are.
 */
final class PassedMembers {
    private final Resolution resolution;

    PassedMembers(Resolution resolution) {
        this.resolution = resolution;
    }

    /**
     * {@return the loop that the members go through, or null if they are held together or not
     * needed at all}
     *
     * @param loop whose last clause makes the groups
     * @param name of what is written for each group, if it has one of its own
     * @param each what is written for each group
     */
    @Nullable
    Loop loopOver(Loop loop, @Nullable Expr name, Stmt.Content each) {
        Loop.Clause group = groupAtEnd(loop);
        if (group == null) {
            return null;
        }
        int slot = resolution.slot(group);
        MemberUses members = new MemberUses(resolution);
        members.begin(slot);
        Stmt.Repeated over = StreamFinder.outermost(each, inner -> members.goneThroughBy(inner) != null);
        if (over == null) {
            return null;
        }
        Uses all = new Uses(slot, over);
        all.expr(name);
        all.content(each);
        if (!all.areNeededByLoop || all.kept) {
            return null;
        }
        boolean ends = group instanceof Loop.GroupFrom || group instanceof Loop.GroupBy by && by.runs();
        return ends && asksTooEarly(name, each, slot, over) ? null : over.loop();
    }

    private static Loop.@Nullable Clause groupAtEnd(Loop loop) {
        Loop.Clause last = null;
        for (Loop.Clause clause : loop.clauses()) {
            last = clause instanceof Loop.KeyedBy ? last : clause;
        }
        return MemberUses.isGrouping(last) ? last : null;
    }

    /**
     * Whether a function over the members is asked for before the last of them has come: the name,
     * what stands before the loop, and all attributes are written first.
     */
    private boolean asksTooEarly(@Nullable Expr name, Stmt.Content each, int slot, Stmt.Repeated over) {
        Uses early = new Uses(slot, over);
        early.expr(name);
        if (each instanceof Stmt.Nested nested) {
            early.beforeLoop(nested.block());
        }
        early.repeated(over);
        return early.functions;
    }

    /** {@return whether a loop that groups needs the members of its groups as values} */
    private boolean needsMembers(Stmt.Repeated repeated) {
        List<Loop.Clause> clauses = repeated.loop().clauses();
        int group = MemberUses.firstGroup(repeated.loop());
        if (group < 0) {
            return false;
        }
        Uses uses = new Uses(resolution.slot(clauses.get(group)), null);
        uses.clauses(clauses.subList(group + 1, clauses.size()));
        uses.content(repeated.each());
        return uses.kept;
    }

    /** How the members of one group are used. */
    private final class Uses extends TreeWalk {
        private final int slot;
        private final Stmt.@Nullable Repeated over;
        private final MemberUses members = new MemberUses(resolution);
        /** The lets that ask for a function over the members, when they are used. */
        private final Set<Integer> lets = new HashSet<>();

        private boolean kept;
        private boolean functions;
        private boolean areNeededByLoop;

        Uses(int slot, Stmt.@Nullable Repeated over) {
            this.slot = slot;
            this.over = over;
            members.begin(slot);
        }

        @Override
        protected void reference(Expr.Reference reference) {
            kept |= members.members(reference) != null;
            functions |= resolution.binding(reference) instanceof Binding.LocalLet let && lets.contains(let.slot());
        }

        @Override
        protected void call(Expr.Call call) {
            if (resolution.callee(call) instanceof Resolution.Builtin builtin
                    && builtin.function() instanceof Function.Aggregate aggregate
                    && isTaken(call, aggregate)) {
                functions = true;
            } else {
                super.call(call);
            }
        }

        private boolean isTaken(Expr.Call call, Function.Aggregate function) {
            boolean first = MemberUses.wantsOnlyFirst(call, function)
                    && call.arguments().get(0) instanceof Expr.ForEach forEach
                    && members.takenInOrder(forEach.loop(), true) != null;
            return first || members.takenByFunction(call) != null;
        }

        @Override
        protected void forEach(Expr.ForEach forEach) {
            if (members.takenInOrder(forEach.loop(), false) != null) {
                functions = true;
                clauses(afterFirst(forEach.loop()));
                expr(forEach.yield());
            } else {
                super.forEach(forEach);
            }
        }

        @Override
        protected void repeated(Stmt.Repeated repeated) {
            boolean taken = members.takenByLoop(repeated.loop()) != null && !needsMembers(repeated);
            functions |= taken;
            areNeededByLoop |= repeated == over && !taken;
            clauses(
                    taken || repeated == over
                            ? afterFirst(repeated.loop())
                            : repeated.loop().clauses());
            content(repeated.each());
        }

        private static List<Loop.Clause> afterFirst(Loop loop) {
            return loop.clauses().subList(1, loop.clauses().size());
        }

        /** Goes through what is written of a block before the loop has come to its end. */
        void beforeLoop(Block block) {
            for (Stmt statement : block.statements()) {
                if (statement instanceof Stmt.Let let && asksFor(let)) {
                    lets.add(resolution.slot(let));
                }
            }
            boolean before = true;
            for (Stmt statement : block.statements()) {
                boolean leads = over != null && StreamFinder.leadsTo(statement, over.loop());
                if (leads && statement instanceof Stmt.Field field && field.content() instanceof Stmt.Nested nested) {
                    beforeLoop(nested.block());
                } else if (!leads && !(statement instanceof Stmt.Let) && (before || mayWriteAttributes(statement))) {
                    statement(statement);
                }
                before &= !leads;
            }
        }

        private boolean asksFor(Stmt.Let let) {
            Uses uses = new Uses(slot, null);
            uses.lets.addAll(lets);
            uses.statement(let);
            return uses.functions;
        }

        private boolean mayWriteAttributes(Stmt statement) {
            if (statement instanceof Stmt.If ifThen) {
                List<Stmt> inside = new ArrayList<>(ifThen.then().statements());
                inside.addAll(
                        ifThen.otherwise() == null
                                ? List.of()
                                : ifThen.otherwise().statements());
                return inside.stream().anyMatch(this::mayWriteAttributes);
            }
            return statement instanceof Stmt.Copy || statement instanceof Stmt.Field field && field.attribute();
        }
    }
}
