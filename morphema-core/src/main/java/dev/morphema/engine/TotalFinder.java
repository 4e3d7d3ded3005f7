package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.function.Function;
import dev.morphema.syntax.Expr;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Finds the functions over the records of a source that give the same all through a run, such as control totals. */
final class TotalFinder {
    /**
     * Such a function.
     *
     * @param way to the records
     * @param steps how many steps lead from a record down to what the function takes
     */
    record Found(Expr.Call call, Ways.Way way, int steps) {}

    private final CheckedMapping mapping;
    private final Ways ways;

    TotalFinder(CheckedMapping mapping, Ways ways) {
        this.mapping = mapping;
        this.ways = ways;
    }

    /**
     * {@return the functions over the records of a source}
     *
     * @param paths to the records that are read one at a time anyway; if there are none, the records are those of a sequence
     */
    List<Found> over(int source, Set<List<FieldName>> paths) {
        Set<List<FieldName>> toRecords =
                paths.isEmpty() && mapping.sources().get(source).isSequence() ? Set.of(List.of()) : paths;
        List<Found> found = new ArrayList<>();
        SteadyCheck check = new SteadyCheck(mapping.resolution());
        mapping.resolution().calls().forEach((call, callee) -> {
            if (isOverMany(callee) && check.isSteady(call)) {
                Found total = total(call, source, toRecords);
                if (total != null) {
                    found.add(total);
                }
            }
        });
        return found;
    }

    private static boolean isOverMany(Resolution.Callee callee) {
        return callee instanceof Resolution.Builtin builtin && builtin.function() instanceof Function.Aggregate;
    }

    private @Nullable Found total(Expr.Call call, int source, Set<List<FieldName>> paths) {
        Expr items = call.arguments().get(0);
        if (items instanceof Expr.ForEach forEach) {
            Ways.Way way = ways.to(forEach.loop().first());
            return way != null && leadsToOne(way, source, paths) ? new Found(call, way, 0) : null;
        }
        Expr sequence = items;
        for (int steps = 0; ; steps++) {
            Ways.Way way = ways.to(sequence);
            if (way != null && leadsToOne(way, source, paths)) {
                return new Found(call, way, steps);
            }
            if (!(sequence instanceof Expr.Step step)) {
                return null;
            }
            sequence = step.base();
        }
    }

    private static boolean leadsToOne(Ways.Way way, int source, Set<List<FieldName>> paths) {
        return way.source() == source && paths.contains(way.path());
    }
}
