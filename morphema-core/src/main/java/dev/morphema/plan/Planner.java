package dev.morphema.plan;

import dev.morphema.check.CheckedMapping;
import java.util.List;

/** Makes plans. */
public final class Planner {
    /** In the order in which they are applied: each may rely on what those before it found. */
    static final List<Rule> RULES = List.of(
            new InlineDefines(),
            new NarrowItems(),
            new LimitSorts(),
            new KeepUpFunctions(),
            new DropUnusedLets(),
            new HoldMembers(),
            new PassMembers(),
            new StreamSources(),
            new HoistInvariants(),
            new FindByKey());

    private Planner() {}

    /**
     * {@return the plan of a mapping}
     *
     * @param mapping checked without errors
     */
    public static Plan plan(CheckedMapping mapping) {
        Plan plan = asWritten(mapping);
        for (Rule rule : RULES) {
            plan = rule.apply(plan);
        }
        return plan;
    }

    /**
     * {@return the plan of a mapping before any rule: it gives the same, and holds more}
     *
     * @param mapping checked without errors
     */
    public static Plan asWritten(CheckedMapping mapping) {
        return Lowering.lower(mapping);
    }
}
