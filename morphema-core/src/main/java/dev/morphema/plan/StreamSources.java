package dev.morphema.plan;

import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Records of a source are read one at a time by loops that are gone through once, directly or
 * through a let of the top level: the outermost loop of a target, through which records are pushed;
 * further loops beside it, and loops that fill tables, which read them for themselves. Other uses
 * of the source must be of other parts of it, which are then read for themselves, or functions over
 * the same records, for which these are read once more; if there is any other use of the same part,
 * the source is kept as a whole.
 */
final class StreamSources implements Rule {
    private static final String APART =
            "\ntry: without that use, or with it in a loop of a target of its own, its records would be read one at a time";

    @Override
    public Plan apply(Plan plan) {
        return new Decision(plan).applied();
    }

    /**
     * A loop that may read records one at a time.
     *
     * @param target whose outermost loop it is, or null
     */
    private record Candidate(Plan.@Nullable Target target, Pipeline loop, AccessPaths.AccessPath path) {}

    /** What is decided for one plan. */
    private static final class Decision {
        private final Plan plan;
        private final SourceUses uses;
        private final AccessPaths paths;
        private final SourceTotals totals;
        private final List<Candidate> candidates = new ArrayList<>();
        private final List<Plan.Source> sources = new ArrayList<>();
        private final Map<Plan.Target, Candidate> pushed = new IdentityHashMap<>();
        private final Map<Pipeline, Candidate> streaming = new IdentityHashMap<>();
        private final Map<Term, SourceTotals.Found> found = new IdentityHashMap<>();

        Decision(Plan plan) {
            this.plan = plan;
            this.uses = SourceUses.of(plan);
            this.paths = new AccessPaths(plan);
            this.totals = new SourceTotals(plan, paths, uses);
            plan.targets().forEach(this::collect);
            for (Plan.Table table : plan.tables()) {
                if (table instanceof Plan.LoopTable filled) {
                    add(null, filled.loop());
                }
            }
            for (int source = 0; source < plan.sources().size(); source++) {
                sources.add(decide(source));
            }
        }

        private void collect(Plan.Target target) {
            if (target.split() != null) {
                add(target, target.split());
                return;
            }
            Output.Turns first = OutermostLoop.find(target.document(), loop -> true);
            for (Pipeline loop : OutermostLoop.all(target.document())) {
                add(first != null && loop == first.loop() ? target : null, loop);
            }
        }

        private void add(Plan.@Nullable Target target, Pipeline loop) {
            AccessPaths.AccessPath path = paths.to(loop);
            if (path != null) {
                candidates.add(new Candidate(target, loop, path));
            }
        }

        Plan applied() {
            return plan.rebuilt(unit -> new Pass()).with(sources);
        }

        private final class Pass extends PlanPass {
            @Override
            public Plan.Target target(Plan.Target target) {
                Candidate candidate = pushed.get(target);
                Plan.Target rebuilt = super.target(target);
                return candidate == null
                        ? rebuilt
                        : rebuilt.streaming(candidate.path().scan());
            }

            @Override
            public Pipeline pipeline(Pipeline pipeline) {
                Candidate candidate = streaming.get(pipeline);
                Pipeline rebuilt = super.pipeline(pipeline);
                if (candidate == null) {
                    return rebuilt;
                }
                Term scanned = new PlannedTerm.Scanned(
                        rebuilt.sequence(), candidate.path().scan());
                return candidate.target() == null
                        ? rebuilt.with(scanned, rebuilt.operators())
                        : rebuilt.with(Pipeline.Supply.PUSHED);
            }

            @Override
            public Term term(Term term) {
                SourceTotals.Found total = found.get(term);
                Term rebuilt = super.term(term);
                return total == null
                        ? rebuilt
                        : new PlannedTerm.Total(
                                (Term.Aggregate) rebuilt, total.path().scan(), total.steps());
            }
        }

        /**
         * As many loops over one source stream as can: what they go over must be used nowhere else,
         * but for totals.
         */
        private Plan.Source decide(int source) {
            List<Candidate> all = candidates.stream()
                    .filter(candidate -> candidate.path().source() == source)
                    .toList();
            if (all.isEmpty() && uses.of(source, Set.of()).isEmpty()) {
                return new Plan.Source(false, null);
            }
            List<Candidate> outermost =
                    all.stream().filter(candidate -> candidate.target() != null).toList();
            String reason = null;
            for (List<Candidate> loops : List.of(all, outermost)) {
                Set<Scan> scans = new LinkedHashSet<>();
                loops.forEach(loop -> scans.add(loop.path().scan()));
                for (List<SourceTotals.Found> over :
                        List.of(totals.over(source, scans), List.<SourceTotals.Found>of())) {
                    List<SourceUses.Use> others = uses.of(source, names(loops, over));
                    reason = reason(loops, over, others);
                    if (reason == null) {
                        stream(loops, over);
                        return new Plan.Source(!others.isEmpty(), null);
                    }
                }
            }
            return new Plan.Source(true, reason);
        }

        private void stream(List<Candidate> loops, List<SourceTotals.Found> over) {
            for (Candidate candidate : loops) {
                streaming.put(candidate.loop(), candidate);
                if (candidate.target() != null) {
                    pushed.put(candidate.target(), candidate);
                }
            }
            over.forEach(total -> found.put(total.function(), total));
        }

        private static List<AccessPaths.AccessPath> paths(List<Candidate> loops, List<SourceTotals.Found> totals) {
            List<AccessPaths.AccessPath> all = new ArrayList<>();
            loops.forEach(loop -> all.add(loop.path()));
            totals.forEach(total -> all.add(total.path()));
            return all;
        }

        /** {@return the names on the way to records, each as it is used there} */
        private static Set<Term> names(List<Candidate> loops, List<SourceTotals.Found> totals) {
            Set<Term> all = Collections.newSetFromMap(new IdentityHashMap<>());
            paths(loops, totals).forEach(path -> all.addAll(path.names()));
            return all;
        }

        /** {@return why nothing of a source can stream, or null if it can} */
        private @Nullable String reason(
                List<Candidate> loops, List<SourceTotals.Found> over, List<SourceUses.Use> others) {
            if (loops.isEmpty() && (over.isEmpty() || !others.isEmpty())) {
                return "why: no target's outermost loop goes over it";
            }
            Set<Term> names = names(loops, over);
            for (AccessPaths.AccessPath path : paths(loops, over)) {
                // Records that have a declared type are converted by the record around them.
                if (plan.projection(path.scan()).isTyped()) {
                    return "why: the records themselves have a declared type";
                }
                for (Term name : path.names()) {
                    Term other = name instanceof Term.Global let ? otherUse(let, names) : null;
                    if (other != null) {
                        return "why: " + other.written() + " is used on line " + usedOn(other);
                    }
                }
                for (SourceUses.Use other : others) {
                    if (!areApart(path.scan().path(), other.path())) {
                        return "why: it is used on line " + usedOn(other.name());
                    }
                }
            }
            return null;
        }

        private @Nullable Term otherUse(Term.Global let, Set<Term> names) {
            return uses.of(let).stream()
                    .filter(use -> !names.contains(use))
                    .findFirst()
                    .orElse(null);
        }

        private static String usedOn(Term use) {
            return use.span().line() + ", beside the outermost loop of a target" + APART;
        }

        /** Whether two paths part before either ends, so that nothing belongs to both. */
        private static boolean areApart(List<FieldName> a, List<FieldName> b) {
            for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
                if (!a.get(i).local().equals(b.get(i).local())
                        || a.get(i).attribute() != b.get(i).attribute()) {
                    return true;
                }
            }
            return false;
        }
    }
}
