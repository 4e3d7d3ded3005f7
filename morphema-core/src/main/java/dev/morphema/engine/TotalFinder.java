package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.function.Function;
import dev.morphema.syntax.Expr;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds the functions over the records of a source that give the same all through a run, such as
 * control totals.
 */
final class TotalFinder {
    /**
     * Such a function.
     *
     * @param way to the records
     * @param steps how many steps lead from a record down to what the function takes
     */
    record Found(Expr.Call call, AccessPaths.AccessPath way, int steps) {}

    /** A source is read so often at most for functions that lead to different places in it. */
    private static final int MOST_READINGS = 3;

    private final CheckedMapping mapping;
    private final AccessPaths ways;

    TotalFinder(CheckedMapping mapping, AccessPaths ways) {
        this.mapping = mapping;
        this.ways = ways;
    }

    /**
     * {@return the functions over the records of a source}
     *
     * @param paths to the records that are read one at a time anyway; if there are none, the
     *     records are those of a sequence, or what the functions themselves lead to
     */
    List<Found> over(int source, Set<List<FieldName>> paths) {
        InvariantCheck check = new InvariantCheck(mapping.resolution());
        List<Expr.Call> calls = new ArrayList<>();
        for (Map.Entry<Expr.Call, Resolution.Callee> call :
                mapping.resolution().calls().entrySet()) {
            if (isOverMany(call.getValue()) && check.isInvariant(call.getKey())) {
                calls.add(call.getKey());
            }
        }
        Set<List<FieldName>> toRecords = paths.isEmpty() ? ownPaths(source, calls) : paths;
        List<Found> found = new ArrayList<>();
        for (Expr.Call call : calls) {
            Found total = total(call, source, toRecords);
            if (total != null) {
                found.add(total);
            }
        }
        return found;
    }

    /**
     * {@return the paths to what functions lead to, but those that lead on from another}; none if
     * they are too many.
     */
    private Set<List<FieldName>> ownPaths(int source, List<Expr.Call> calls) {
        if (mapping.sources().get(source).isSequence()) {
            return Set.of(List.of());
        }
        List<List<FieldName>> all = new ArrayList<>();
        for (Expr.Call call : calls) {
            AccessPaths.AccessPath way = way(call.arguments().get(0));
            if (way != null && way.source() == source && !way.path().isEmpty()) {
                all.add(way.path());
            }
        }
        all.sort(Comparator.comparingInt(List::size));
        Set<List<FieldName>> shortest = new LinkedHashSet<>();
        for (List<FieldName> path : all) {
            if (shortest.stream()
                    .noneMatch(known -> path.subList(0, known.size()).equals(known))) {
                shortest.add(path);
            }
        }
        return shortest.size() > MOST_READINGS ? Set.of() : shortest;
    }

    /** {@return the way to what a function goes over, or null} */
    private AccessPaths.@Nullable AccessPath way(Expr items) {
        return items instanceof Expr.ForEach forEach ? ways.to(forEach.loop().first()) : ways.to(items);
    }

    private static boolean isOverMany(Resolution.Callee callee) {
        return callee instanceof Resolution.Builtin builtin && builtin.function() instanceof Function.Aggregate;
    }

    private @Nullable Found total(Expr.Call call, int source, Set<List<FieldName>> paths) {
        Expr items = call.arguments().get(0);
        if (items instanceof Expr.ForEach) {
            AccessPaths.AccessPath way = way(items);
            return way != null && leadsToOne(way, source, paths) ? new Found(call, way, 0) : null;
        }
        Expr sequence = items;
        for (int steps = 0; ; steps++) {
            AccessPaths.AccessPath way = ways.to(sequence);
            if (way != null && leadsToOne(way, source, paths)) {
                return new Found(call, way, steps);
            }
            if (!(sequence instanceof Expr.Step step)) {
                return null;
            }
            sequence = step.base();
        }
    }

    private static boolean leadsToOne(AccessPaths.AccessPath way, int source, Set<List<FieldName>> paths) {
        return way.source() == source && paths.contains(way.path());
    }
}
