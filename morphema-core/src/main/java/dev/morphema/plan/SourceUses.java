package dev.morphema.plan;

import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Where a plan names sources and lets of the top level, and which functions go over many values.
 */
final class SourceUses extends PlanPass {
    /**
     * A use of a source.
     *
     * @param path the steps down that are written after its name
     */
    record Use(Term.Source name, List<FieldName> path) {}

    private final List<Use> sources = new ArrayList<>();
    private final List<Term.Global> lets = new ArrayList<>();
    private final List<Term.Aggregate> functions = new ArrayList<>();

    private SourceUses() {}

    static SourceUses of(Plan plan) {
        SourceUses uses = new SourceUses();
        plan.look(uses);
        return uses;
    }

    /** {@return all functions over many values} */
    List<Term.Aggregate> functions() {
        return functions;
    }

    /** {@return the uses of a source, but some} */
    List<Use> of(int source, Set<Term> without) {
        return sources.stream()
                .filter(use -> use.name().index() == source && !without.contains(use.name()))
                .toList();
    }

    /** {@return the uses of a let of the top level} */
    List<Term.Global> of(Term.Global let) {
        return lets.stream().filter(use -> use.index() == let.index()).toList();
    }

    @Override
    public Term term(Term term) {
        if (term instanceof Term.Source source) {
            sources.add(new Use(source, List.of()));
        } else if (term instanceof Term.Global let) {
            lets.add(let);
        } else if (term instanceof Term.Aggregate aggregate) {
            functions.add(aggregate);
        } else if (term instanceof Term.Step step && addPath(step)) {
            return term;
        }
        return super.term(term);
    }

    /** Adds a use of a source by steps to fields; says whether these steps are that. */
    private boolean addPath(Term.Step last) {
        List<FieldName> path = new ArrayList<>();
        Term at = last;
        while (at instanceof Term.Step step && step.isNamed()) {
            path.add(0, step.name());
            at = step.base();
        }
        if (!(at instanceof Term.Source source)) {
            return false;
        }
        sources.add(new Use(source, path));
        return true;
    }
}
