package dev.morphema.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A function over the members of a group, or a loop that groups them once more or takes the first
 * in some order, takes them one at a time while they come, if what it does with one depends on that
 * one only.
 */
final class KeepUpFunctions implements Rule {
    private static final int NONE = -1;

    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new Pass());
    }

    private static final class Pass extends PlanPass {
        /** The slots of the members of groups so far. */
        private final Set<Integer> groups = new HashSet<>();
        /** The lets so far, by their slots. */
        private final Map<Integer, Term> lets = new HashMap<>();

        @Override
        public Operator operator(Operator operator) {
            if (operator instanceof Operator.Group group) {
                groups.add(group.members());
            } else if (operator instanceof Operator.Let let) {
                lets.put(let.slot(), let.value());
            }
            return super.operator(operator);
        }

        @Override
        public Emit emit(Emit emit) {
            if (emit instanceof Emit.Let let) {
                lets.put(let.slot(), let.value());
            }
            return super.emit(emit);
        }

        @Override
        public Term term(Term term) {
            Term.Aggregate aggregate = term instanceof Term.Aggregate written ? withoutLets(written) : null;
            int members = aggregate == null ? NONE : takenBy(aggregate);
            return members == NONE
                    ? super.term(term)
                    : new PlannedTerm.Running((Term.Aggregate) super.term(aggregate), members);
        }

        /** {@return a function with what a let names in its place, where that is just a path} */
        private Term.Aggregate withoutLets(Term.Aggregate aggregate) {
            List<Term> arguments = new ArrayList<>(aggregate.arguments());
            arguments.set(0, withoutLets(aggregate.items()));
            return new Term.Aggregate(aggregate.span(), aggregate.function(), arguments);
        }

        private Term withoutLets(Term written) {
            Term path = written.meant();
            if (path instanceof Term.Step step) {
                return new Term.Step(step.span(), withoutLets(step.base()), step.axis(), step.name());
            }
            if (path instanceof Term.Each each) {
                Pipeline loop = each.loop();
                return new Term.Each(
                        each.span(), loop.with(withoutLets(loop.sequence()), loop.operators()), each.item());
            }
            Term value = path instanceof Term.Lazy lazy ? lets.get(lazy.slot()) : null;
            boolean named = value instanceof Term.Name || value instanceof Term.Step || value instanceof Term.Lazy;
            return value != null && named ? withoutLets(value) : written;
        }

        /** {@return the slot of the members that a function takes one at a time, or none} */
        private int takenBy(Term.Aggregate aggregate) {
            boolean constants = aggregate.arguments().stream().skip(1).allMatch(Term.Constant.class::isInstance);
            return constants ? takenBy(aggregate.items()) : NONE;
        }

        private int takenBy(Term items) {
            if (items instanceof Term.Name name) {
                return groups.contains(name.slot()) ? name.slot() : NONE;
            }
            if (items instanceof Term.Step step) {
                return takenBy(step.base().meant());
            }
            return items instanceof Term.Each each ? takenBy(each) : NONE;
        }

        private int takenBy(Term.Each each) {
            Pipeline loop = each.loop();
            int members = membersOf(loop);
            Dependence dependence = dependence(loop, loop.operators().size());
            dependence.term(each.item());
            return members != NONE && allPass(loop.operators()) && dependence.isClosed() ? members : NONE;
        }

        private int membersOf(Pipeline loop) {
            return loop.sequence() instanceof Term.Name name && groups.contains(name.slot()) && loop.isOver(name.slot())
                    ? name.slot()
                    : NONE;
        }

        /** On what a loop depends up to an operator. */
        private static Dependence dependence(Pipeline loop, int operators) {
            Dependence dependence = new Dependence();
            dependence.give(loop.slot());
            loop.operators().subList(0, operators).forEach(dependence::operator);
            return dependence;
        }

        /** Whether operators look at one turn and at nothing else. */
        private static boolean allPass(List<Operator> operators) {
            return operators.stream()
                    .allMatch(operator -> operator instanceof Operator.Filter
                            || operator instanceof Operator.Present
                            || operator instanceof Operator.Let
                            || operator instanceof Operator.Unnest unnest && !unnest.optional());
        }

        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            boolean folds = folds(pipeline);
            Pipeline rebuilt = super.pipeline(pipeline);
            return folds ? rebuilt.with(Pipeline.Supply.FOLDED) : rebuilt;
        }

        private boolean folds(Pipeline loop) {
            if (membersOf(loop) == NONE) {
                return false;
            }
            List<Operator> operators = loop.operators();
            for (int i = 0; i < operators.size(); i++) {
                Operator operator = operators.get(i);
                if (operator instanceof Operator.Group || operator instanceof Operator.Sort) {
                    boolean some = !(operator instanceof Operator.Sort sort && sort.limit() == 0);
                    return some && allPass(operators.subList(0, i)) && isClosed(loop, i);
                }
            }
            return false;
        }

        private static boolean isClosed(Pipeline loop, int holding) {
            Dependence dependence = dependence(loop, holding);
            if (loop.operators().get(holding) instanceof Operator.Sort sort) {
                dependence.terms(sort.keys());
            } else if (loop.operators().get(holding) instanceof Operator.Group group) {
                dependence.terms(group.keys());
                if (group.begins() != null) {
                    dependence.term(group.begins());
                }
            }
            return dependence.isClosed();
        }
    }
}
