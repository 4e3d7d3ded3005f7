package dev.morphema.plan;

/**
 * A function over many values that gives the same all through a run is calculated once, and what
 * {@code in} looks through is indexed if it is the same all through a run.
 */
final class HoistInvariants implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new PlanPass() {
            @Override
            public Term term(Term term) {
                Term rebuilt = super.term(term);
                if (rebuilt instanceof Term.Binary binary && binary.isMembership()) {
                    Term among = binary.right();
                    return Dependence.isInvariant(among) && !(among instanceof PlannedTerm.Once)
                            ? new Term.Binary(
                                    binary.span(), binary.operator(), binary.left(), new PlannedTerm.Once(among))
                            : rebuilt;
                }
                boolean overMany = rebuilt instanceof Term.Aggregate || rebuilt instanceof PlannedTerm.Total;
                return overMany && Dependence.isInvariant(rebuilt) ? new PlannedTerm.Once(rebuilt) : rebuilt;
            }
        });
    }
}
