package dev.morphema.plan;

import dev.morphema.function.Trait;
import java.util.ArrayList;
import java.util.List;

/**
 * Where only one field is asked for of the first item of a loop, and the items are records of the
 * loop's names, they need to hold no other name; the members of a group, for example, are not
 * needed then.
 */
final class NarrowItems implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new PlanPass() {
            @Override
            public Term term(Term term) {
                Term rebuilt = super.term(term);
                return rebuilt instanceof Term.Step step
                                && step.isToField()
                                && step.base().meant() instanceof Term.Aggregate aggregate
                                && aggregate.function().traits().has(Trait.ONLY_FIRST)
                                && aggregate.items() instanceof Term.Each each
                        ? narrowed(step, aggregate, each)
                        : rebuilt;
            }
        });
    }

    private static Term narrowed(Term.Step step, Term.Aggregate aggregate, Term.Each each) {
        if (!(each.item() instanceof Term.Member member) || member.whole()) {
            return step;
        }
        List<Term.Member.Part> parts = new ArrayList<>(member.parts());
        parts.removeIf(part -> !part.name().local().equals(step.name().local()));
        Term.Member item = new Term.Member(member.span(), false, parts);
        List<Term> arguments = List.of(new Term.Each(each.span(), each.loop(), item));
        Term narrow = new Term.Aggregate(aggregate.span(), aggregate.function(), arguments);
        return new Term.Step(step.span(), narrow, step.axis(), step.name());
    }
}
