package dev.morphema.plan;

import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds the functions over the records of a source that give the same all through a run, such as
 * control totals.
 */
final class SourceTotals {
    /**
     * Such a function.
     *
     * @param path to the records
     * @param steps how many steps lead from a record down to what the function takes
     */
    record Found(Term.Aggregate function, AccessPaths.AccessPath path, int steps) {}

    /** A source is read so often at most for functions that lead to different places in it. */
    private static final int MOST_READINGS = 3;

    private final Plan plan;
    private final AccessPaths paths;
    private final List<Term.Aggregate> invariant;

    SourceTotals(Plan plan, AccessPaths paths, SourceUses uses) {
        this.plan = plan;
        this.paths = paths;
        this.invariant =
                uses.functions().stream().filter(Dependence::isInvariant).toList();
    }

    /**
     * {@return the functions over the records of a source}
     *
     * @param scans of the records that are read one at a time anyway; if there are none, the
     *     records are those of a sequence, or what the functions themselves lead to
     */
    List<Found> over(int source, Set<Scan> scans) {
        Set<Scan> toRecords = scans.isEmpty() ? ownScans(source) : scans;
        List<Found> found = new ArrayList<>();
        for (Term.Aggregate function : invariant) {
            Found total = total(function, toRecords);
            if (total != null) {
                found.add(total);
            }
        }
        return found;
    }

    /**
     * {@return the scans of what functions lead to, but those that lead on from another}; none if
     * they are too many.
     */
    private Set<Scan> ownScans(int source) {
        if (plan.mapping().sources().get(source).isSequence()) {
            return Set.of(new Scan(source, List.of()));
        }
        List<List<FieldName>> all = new ArrayList<>();
        for (Term.Aggregate function : invariant) {
            AccessPaths.AccessPath path = path(function.items());
            if (path != null && path.source() == source && !path.scan().path().isEmpty()) {
                all.add(path.scan().path());
            }
        }
        all.sort(Comparator.comparingInt(List::size));
        Set<Scan> shortest = new LinkedHashSet<>();
        for (List<FieldName> path : all) {
            if (shortest.stream().noneMatch(known -> beginsWith(path, known.path()))) {
                shortest.add(new Scan(source, path));
            }
        }
        return shortest.size() > MOST_READINGS ? Set.of() : shortest;
    }

    private static boolean beginsWith(List<FieldName> path, List<FieldName> known) {
        return path.subList(0, known.size()).equals(known);
    }

    /** {@return the way to what a function goes over, or null} */
    private AccessPaths.@Nullable AccessPath path(Term items) {
        return items instanceof Term.Each each ? paths.to(each.loop()) : paths.to(items);
    }

    private @Nullable Found total(Term.Aggregate function, Set<Scan> scans) {
        Term items = function.items();
        if (items instanceof Term.Each) {
            AccessPaths.AccessPath path = path(items);
            return path != null && scans.contains(path.scan()) ? new Found(function, path, 0) : null;
        }
        for (int steps = 0; ; steps++) {
            AccessPaths.AccessPath path = paths.to(items);
            if (path != null && scans.contains(path.scan())) {
                return new Found(function, path, steps);
            }
            if (!(items instanceof Term.Step step)) {
                return null;
            }
            items = step.base();
        }
    }
}
