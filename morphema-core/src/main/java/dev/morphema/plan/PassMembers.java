package dev.morphema.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Where all members of a group go in order through one loop in what is written for it, and beside
 * that only functions ask for them, they are passed on one at a time, however many they are.
 */
final class PassMembers implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new Pass(NeededMembers.in(unit)));
    }

    private static final class Pass extends PlanPass {
        /** The loops through which members are passed. */
        private final Set<Pipeline> pushed = Collections.newSetFromMap(new IdentityHashMap<>());
        /** The loops that make the groups of these members. */
        private final Set<Pipeline> passing = Collections.newSetFromMap(new IdentityHashMap<>());

        private final NeededMembers needed;

        Pass(NeededMembers needed) {
            this.needed = needed;
        }

        @Override
        public Plan.Target target(Plan.Target target) {
            if (target.split() != null) {
                decide(target.split(), target.name(), target.document());
            }
            return super.target(target);
        }

        @Override
        public Output output(Output output) {
            if (output instanceof Output.Turns turns) {
                decide(turns.loop(), turns.key(), turns.each());
            }
            return super.output(output);
        }

        private void decide(Pipeline loop, @Nullable Term name, Output each) {
            Operator.Group group = groupAtEnd(loop);
            Pipeline over = group == null ? null : overMembers(group, name, each, needed);
            if (over != null) {
                pushed.add(over);
                passing.add(loop);
            }
        }

        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            Pipeline rebuilt = super.pipeline(pipeline);
            if (passing.contains(pipeline)) {
                List<Operator> operators = new ArrayList<>(rebuilt.operators());
                operators.set(operators.size() - 1, groupAtEnd(rebuilt).keeping(false));
                rebuilt = rebuilt.with(rebuilt.sequence(), operators);
            }
            return pushed.contains(pipeline) ? rebuilt.with(Pipeline.Supply.PUSHED) : rebuilt;
        }
    }

    private static Operator.@Nullable Group groupAtEnd(Pipeline loop) {
        int last = loop.operators().size() - 1;
        return last >= 0 && loop.operators().get(last) instanceof Operator.Group group ? group : null;
    }

    /**
     * {@return the loop that the members go through, or null if they are held together or not
     * needed at all}
     *
     * @param name of what is written for each group, if it has one of its own
     * @param each what is written for each group
     */
    private static @Nullable Pipeline overMembers(
            Operator.Group group, @Nullable Term name, Output each, NeededMembers needed) {
        Output.Turns turns = OutermostLoop.find(each, loop -> loop.isOver(group.members()));
        if (turns == null) {
            return null;
        }
        Pipeline over = turns.loop();
        Uses uses = new Uses(group.members(), over, needed);
        if (name != null) {
            uses.term(name);
        }
        uses.output(each);
        boolean passes = uses.neededByLoop && !uses.values;
        return passes && !(group.ends() && asksTooEarly(group.members(), name, each, turns, needed)) ? over : null;
    }

    /**
     * Whether a function over the members is asked for before the last of them has come: the name,
     * what stands before the loop, and all attributes are written first.
     */
    private static boolean asksTooEarly(
            int members, @Nullable Term name, Output each, Output.Turns turns, NeededMembers needed) {
        Uses early = new Uses(members, turns.loop(), needed);
        if (name != null) {
            early.term(name);
        }
        if (each instanceof Output.Nested nested) {
            early.beforeLoop(nested.body());
        }
        early.output(turns);
        return early.functions;
    }

    /** How the members of one group are used. */
    private static final class Uses extends PlanPass {
        private final int members;
        private final @Nullable Pipeline over;
        private final NeededMembers needed;
        /**
         * The lets and kept fields that ask for a function over the members, when they are used.
         */
        private final Set<Integer> asking = new HashSet<>();

        private boolean values;
        private boolean functions;
        private boolean neededByLoop;

        Uses(int members, @Nullable Pipeline over, NeededMembers needed) {
            this.needed = needed;
            this.members = members;
            this.over = over;
        }

        @Override
        public Term term(Term term) {
            if (term instanceof PlannedTerm.Running running && running.members() == members) {
                functions = true;
                return term;
            }
            values |= term instanceof Term.Name name && name.slot() == members;
            functions |= term instanceof Term.Lazy lazy && asking.contains(lazy.slot());
            return super.term(term);
        }

        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            boolean taken =
                    pipeline.supply() == Pipeline.Supply.FOLDED && pipeline.isOver(members) && !needed.areBy(pipeline);
            functions |= taken;
            neededByLoop |= pipeline == over && !taken;
            if (!taken && pipeline != over) {
                return super.pipeline(pipeline);
            }
            pipeline.operators().forEach(this::operator);
            return pipeline;
        }

        /** Goes through what is written of a block before the loop has come to its end. */
        void beforeLoop(Emits body) {
            for (Emit emit : body.statements()) {
                int slot = emit instanceof Emit.Let let
                        ? let.slot()
                        : emit instanceof Emit.Field field ? field.keptIn() : -1;
                if (slot >= 0 && asksFor(emit)) {
                    asking.add(slot);
                }
            }
            boolean before = true;
            for (Emit emit : body.statements()) {
                boolean leads = OutermostLoop.leadsTo(emit, loop -> loop == over);
                if (leads && emit instanceof Emit.Field field && field.output() instanceof Output.Nested nested) {
                    beforeLoop(nested.body());
                } else if (!leads && !(emit instanceof Emit.Let) && (before || mayWriteAttributes(emit))) {
                    emit(emit);
                }
                before &= !leads;
            }
        }

        private boolean asksFor(Emit emit) {
            Uses uses = new Uses(members, null, needed);
            uses.asking.addAll(asking);
            uses.emit(emit);
            return uses.functions;
        }

        private static boolean mayWriteAttributes(Emit emit) {
            if (emit instanceof Emit.Choice choice) {
                List<Emit> inside = new ArrayList<>(choice.then().statements());
                inside.addAll(
                        choice.otherwise() == null
                                ? List.of()
                                : choice.otherwise().statements());
                return inside.stream().anyMatch(Uses::mayWriteAttributes);
            }
            return emit instanceof Emit.Copy
                    || emit instanceof Emit.Field field && field.name().attribute();
        }
    }
}
