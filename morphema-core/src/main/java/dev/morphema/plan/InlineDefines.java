package dev.morphema.plan;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A call of a define becomes what the define says, with the arguments in place of their names, so
 * that other rules find there what they would find had it been written so. Not if an argument would
 * be calculated more often, or the define is long or calls itself.
 */
final class InlineDefines implements Rule {
    /** Of longer defines a call says more than it costs. */
    private static final int LONGEST = 60;
    /** So many terms come into a unit at most. */
    private static final int MOST_ADDED = 2_000;

    @Override
    public Plan apply(Plan plan) {
        Bodies bodies = new Bodies(plan);
        return plan.rebuilt(unit -> new Pass(bodies, unit.slots()));
    }

    /** The defines, in each of which calls of others are inlined already. */
    private static final class Bodies {
        private final Plan plan;
        private final Map<Integer, Plan.Formula> done = new HashMap<>();
        private final Set<Integer> open = new HashSet<>();

        Bodies(Plan plan) {
            this.plan = plan;
        }

        /** {@return what a define says, or null if it leads to itself} */
        Plan.@Nullable Formula of(int define) {
            Plan.Formula known = done.get(define);
            if (known == null && open.add(define)) {
                Plan.Formula body = plan.defines().get(define);
                known = body.rebuilt(new Pass(this, body.slots()));
                done.put(define, known);
                open.remove(define);
            }
            return known;
        }
    }

    private static final class Pass extends PlanPass {
        private final Bodies bodies;
        private int slots;
        private int added;

        Pass(Bodies bodies, int slots) {
            this.bodies = bodies;
            this.slots = slots;
        }

        @Override
        public int slots(int before) {
            return slots;
        }

        @Override
        public Term term(Term term) {
            Term rebuilt = super.term(term);
            return rebuilt instanceof Term.Defined call ? inlined(call) : rebuilt;
        }

        private Term inlined(Term.Defined call) {
            // What depends on no argument is better calculated in one place for all calls.
            boolean may = !call.isVolatile() && !call.arguments().isEmpty();
            Plan.Formula body = may ? bodies.of(call.index()) : null;
            if (body == null) {
                return call;
            }
            Count count = new Count();
            count.term(body.term());
            if (count.terms > LONGEST || added + count.terms > MOST_ADDED || !count.allowsFor(call.arguments())) {
                return call;
            }
            added += count.terms;
            int begin = slots;
            slots += body.slots();
            return new Term.Inlined(call.span(), new Insertion(call.arguments(), begin).term(body.term()));
        }
    }

    /** Puts arguments in place of their names, and moves the slots of all other names. */
    private static final class Insertion extends PlanPass {
        private final List<Term> arguments;
        private final int begin;

        Insertion(List<Term> arguments, int begin) {
            this.arguments = arguments;
            this.begin = begin;
        }

        @Override
        public int slot(int slot) {
            return slot + begin;
        }

        @Override
        public Term term(Term term) {
            if (!(term instanceof Term.Argument argument)) {
                return super.term(term);
            }
            Term given = arguments.get(argument.slot());
            // A constant that a function cannot do with is a problem when it is called, not before:
            // only those that stand in the call itself were checked.
            return given instanceof Term.Constant ? new Term.Inlined(term.span(), given) : given;
        }
    }

    /** How long a define is, and how often it asks for each of its arguments. */
    private static final class Count extends PlanPass {
        private final Map<Integer, Integer> asked = new HashMap<>();
        private int terms;
        private int depth;

        /** Whether the arguments may be calculated wherever their names stand. */
        boolean allowsFor(List<Term> arguments) {
            for (int i = 0; i < arguments.size(); i++) {
                if (!isPath(arguments.get(i).meant()) && asked.getOrDefault(i, 0) > 1) {
                    return false;
                }
            }
            return true;
        }

        private static boolean isPath(Term term) {
            return term instanceof Term.Step step && step.isNamed()
                    ? isPath(step.base().meant())
                    : term instanceof Term.Leaf || term instanceof Term.Name || term instanceof Term.Lazy;
        }

        @Override
        public Term term(Term term) {
            terms++;
            if (term instanceof Term.Argument argument) {
                // Within a loop it is asked for in each turn.
                asked.merge(argument.slot(), depth == 0 ? 1 : 2, Integer::sum);
            }
            boolean repeats = term instanceof Term.Each || term instanceof Term.RecordOf;
            depth += repeats ? 1 : 0;
            super.term(term);
            depth -= repeats ? 1 : 0;
            return term;
        }
    }
}
