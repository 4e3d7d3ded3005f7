package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;

/**
 * Rows that are to become records with lists: what the outer fields are made of says by what the
 * rows are grouped.
 *
 * @param clause the part of the loop behind the for
 * @param scope what is in scope in each group
 */
record Grouping(String clause, Scope scope) {
    /**
     * {@return how the rows of a loop are grouped; null if they are records with lists already, or
     * nothing tells}
     */
    static @Nullable Grouping find(
            TargetField outer,
            @Nullable TargetField inner,
            Chain chain,
            Scope within,
            BiFunction<TargetField, List<Column>, @Nullable Column> columnOf,
            Set<String> taken) {
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        Columns all = new Columns(within);
        List<Column> columns = all.single().stream()
                .filter(column -> own.contains(Aligner.root(column)))
                .toList();
        boolean nested = all.repeated().stream()
                .anyMatch(repeat -> own.contains(repeat.expression().replaceAll("\\..*", "")));
        boolean flat = inner == null
                || inner.fields().stream()
                        .anyMatch(field -> field.isScalar() && columnOf.apply(field, columns) != null);
        if (nested || !flat) {
            return null;
        }
        List<Column> kept = new ArrayList<>();
        for (TargetField field : outer.fields()) {
            Column column = field.isScalar() && !field.several() ? columnOf.apply(field, columns) : null;
            if (column != null && !kept.contains(column)) {
                kept.add(column);
            }
        }
        Column key = key(kept);
        return key == null ? null : grouped(key, chain, within, taken);
    }

    /**
     * {@return the column on which most others depend, of the fewest values; null if there is none}
     */
    private static @Nullable Column key(List<Column> columns) {
        Column best = null;
        long most = 0;
        for (Column key : columns) {
            long decided = columns.stream().filter(other -> depends(other, key)).count();
            boolean repeated =
                    key.distinct().size() < key.cells().size() || key.cells().size() == 1;
            boolean fewer =
                    best == null || key.distinct().size() < best.distinct().size();
            if (repeated && decided * 2 > columns.size() && (decided > most || decided == most && fewer)) {
                best = key;
                most = decided;
            }
        }
        return best;
    }

    private static boolean depends(Column column, Column key) {
        Map<String, String> known = new HashMap<>();
        for (int i = 0; i < key.cells().size(); i++) {
            Cell by = key.cells().get(i);
            Cell cell = column.cells().get(i);
            String text = cell == null ? "" : cell.text();
            String before = known.putIfAbsent(by == null ? "" : by.text(), text);
            if (before != null && !before.equals(text)) {
                return false;
            }
        }
        return true;
    }

    private static Grouping grouped(Column key, Chain chain, Scope within, Set<String> taken) {
        Map<String, List<Item>> groups = new LinkedHashMap<>();
        Map<String, Cell> keys = new HashMap<>();
        for (int i = 0; i < within.size(); i++) {
            Cell cell = key.cells().get(i);
            String text = cell == null ? "" : cell.text();
            keys.put(text, cell);
            groups.computeIfAbsent(text, t -> new ArrayList<>())
                    .add(chain.member(within.turns().get(i)));
        }
        List<@Nullable Object[]> turns = new ArrayList<>();
        groups.forEach((text, items) ->
                turns.add(Scope.joined(chain.around().turns().get(0), new @Nullable Object[] {keys.get(text), items})));
        GroupNames names = GroupNames.of(chain, List.of(key), taken);
        return new Grouping(names.clause(), chain.around().with(names.vars(), turns));
    }
}
