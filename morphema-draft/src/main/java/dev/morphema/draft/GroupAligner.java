package dev.morphema.draft;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Finds how the turns of a loop become records in groups: by keys, behind a header, by totals. */
final class GroupAligner {
    private static final int MOST_CODES = 6;

    private final Expected expected;
    private final Set<String> taken;
    private final Tables tables;
    private final List<Alignment> found;

    /**
     * @param taken names that new ones may not hide
     * @param tables what keys of groups can be looked up in
     * @param found takes what is found
     */
    GroupAligner(Expected expected, Set<String> taken, Tables tables, List<Alignment> found) {
        this.expected = expected;
        this.taken = taken;
        this.tables = tables;
        this.found = found;
    }

    /** Adds a loop, unless there is one like it. */
    void add(String clause, Scope scope, int[] order, String over, double cost) {
        if (found.stream().noneMatch(known -> known.clause().equals(clause))) {
            found.add(new Alignment(clause, scope, expected.starts(), order, over, cost));
        }
    }

    /**
     * One record for each row with some code, and the rows behind it: headers and their details.
     */
    void headed(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        if (expected.records().isEmpty()
                || Arrays.stream(sizes).sum() <= expected.records().size()) {
            return;
        }
        for (Column column : columns) {
            Set<String> codes = column.distinct();
            if (codes.size() < 2 || codes.size() > MOST_CODES) {
                continue;
            }
            for (String code : codes) {
                headed(chain, column, code, sizes);
            }
        }
    }

    private void headed(Chain chain, Column column, String code, int[] sizes) {
        List<@Nullable Object[]> turns = new ArrayList<>();
        int base = 0;
        Cell constant = null;
        for (int around = 0; around < sizes.length; around++) {
            List<List<Item>> groups = new ArrayList<>();
            for (int i = base; i < base + sizes[around]; i++) {
                Cell cell = column.cells().get(i);
                if (cell != null && cell.text().equals(code)) {
                    constant = cell;
                    groups.add(new ArrayList<>());
                } else if (groups.isEmpty()) {
                    return;
                }
                groups.get(groups.size() - 1)
                        .add(chain.member(chain.turns().get(around).get(i - base)));
            }
            if (groups.size() != expected.size(around)) {
                return;
            }
            for (List<Item> group : groups) {
                turns.add(Scope.joined(chain.around().turns().get(around), group));
            }
            base += sizes[around];
        }
        if (constant != null) {
            GroupNames names = GroupNames.of(chain, List.of(), taken);
            String clause = chain.clause() + " group from " + column.expression() + " == " + Texts.constant(constant)
                    + " as " + names.members();
            Scope scope = chain.around().with(names.vars(), turns);
            add(clause, scope, IntStream.range(0, turns.size()).toArray(), chain.over(), 1.2);
        }
    }

    /** One record for each value of a key, or each pair of values of two. */
    void byKeys(Chain chain, Columns all, double cost) {
        int[] sizes = chain.sizes();
        for (int i = 0; i < sizes.length; i++) {
            if (sizes[i] < expected.size(i) || sizes[i] > 0 && expected.size(i) == 0) {
                return;
            }
        }
        // Groups of one are no groups.
        if (expected.records().isEmpty()
                || Arrays.stream(sizes).sum() <= expected.records().size()) {
            return;
        }
        List<Column> columns = new ArrayList<>(all.single());
        all.single().forEach(column -> columns.addAll(DatedColumns.of(column)));
        columns.addAll(tables.lookups(all.repeated(), all.single(), Set.of(chain.over())));
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        List<Link> links = new ArrayList<>();
        for (Leaves.Leaf leaf : expected.leaves()) {
            columns.stream()
                    .filter(column -> own.contains(Aligner.root(column)) && isAmong(leaf, column, sizes))
                    .forEach(column -> links.add(new Link(leaf, column)));
        }
        Set<List<String>> tried = new HashSet<>();
        for (Link link : links) {
            group(chain, List.of(link), sizes, cost, tried);
        }
        for (Link one : links) {
            for (Link other : links) {
                if (one != other && one.leaf() != other.leaf()) {
                    group(chain, List.of(one, other), sizes, cost + 0.9, tried);
                }
            }
        }
    }

    /**
     * Groups whose key is no field of the records: they are told by how many there are, and by
     * totals.
     */
    void hidden(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        for (Column column : columns) {
            boolean fits = own.contains(Aligner.root(column))
                    && Arrays.stream(sizes).sum() > expected.records().size();
            List<List<Integer>> groups = new ArrayList<>();
            int base = 0;
            for (int around = 0; fits && around < sizes.length; around++) {
                Map<List<String>, List<Integer>> here = grouped(List.of(new Link(null, column)), base, sizes[around]);
                fits = here.size() == expected.size(around);
                groups.addAll(here.values());
                base += sizes[around];
            }
            if (fits) {
                hidden(chain, column, groups);
            }
        }
    }

    private void hidden(Chain chain, Column key, List<List<Integer>> groups) {
        GroupNames names = GroupNames.of(chain, List.of(key), taken);
        List<@Nullable Object[]> turns = new ArrayList<>();
        List<@Nullable Object[]> flat = new ArrayList<>();
        chain.turns().forEach(flat::addAll);
        for (int around = 0; around + 1 < expected.starts().length; around++) {
            for (int i = expected.starts()[around]; i < expected.starts()[around + 1]; i++) {
                List<Item> items = new ArrayList<>();
                groups.get(i).forEach(turn -> items.add(chain.member(flat.get(turn))));
                Cell cell = key.cells().get(groups.get(i).get(0));
                turns.add(Scope.joined(chain.around().turns().get(around), cell, items));
            }
        }
        Scope scope = chain.around().with(names.vars(), turns);
        String clause = chain.clause() + " " + names.clause();
        int[] order = byTotals(scope);
        if (order != null) {
            add(clause, scope.only(IntStream.of(order).boxed().toList()), order, chain.over(), 1.6);
        }
    }

    /**
     * {@return for each record the group with the same total of something; null if no total tells}
     */
    private int @Nullable [] byTotals(Scope groups) {
        int[] sizes = new int[expected.starts().length - 1];
        for (int i = 0; i < sizes.length; i++) {
            sizes[i] = expected.size(i);
        }
        for (Term term : new Aggregates(new Columns(groups).repeated()).terms()) {
            List<@Nullable Cell> cells = new ArrayList<>();
            term.values().forEach(value -> cells.add(value == null ? null : Cell.text(value.toPlainString())));
            Column totals = new Column(term.expression(), term.about(), cells, term.cost());
            for (Leaves.Leaf leaf : expected.leaves()) {
                boolean telling =
                        new Wanted(leaf.name(), leaf.cells(), false).distinct().size() > 1;
                int[] order = telling ? expected.matched(leaf, totals, sizes) : null;
                if (order != null) {
                    return order;
                }
            }
        }
        return null;
    }

    private record Link(Leaves.@Nullable Leaf leaf, Column column) {}

    /** Whether all values of a field are among those of a column, within each turn around. */
    private boolean isAmong(Leaves.Leaf leaf, Column column, int[] sizes) {
        int base = 0;
        for (int around = 0; around < sizes.length; around++) {
            Set<String> values = new HashSet<>();
            for (int i = base; i < base + sizes[around]; i++) {
                Cell cell = column.cells().get(i);
                values.add(cell == null ? "" : Leaves.normal(cell));
            }
            for (int i = expected.starts()[around]; i < expected.starts()[around + 1]; i++) {
                Cell want = leaf.cells().get(i);
                if (want == null || !values.contains(Leaves.normal(want))) {
                    return false;
                }
            }
            base += sizes[around];
        }
        return true;
    }

    private void group(Chain chain, List<Link> links, int[] sizes, double cost, Set<List<String>> tried) {
        List<String> expressions =
                links.stream().map(link -> link.column().expression()).sorted().toList();
        if (!tried.add(expressions)) {
            return;
        }
        List<@Nullable Object[]> turns = new ArrayList<>();
        int[] order = new int[expected.records().size()];
        int base = 0;
        int groupsBefore = 0;
        for (int around = 0; around < sizes.length; around++) {
            Map<List<String>, List<Integer>> groups = grouped(links, base, sizes[around]);
            if (groups.size() != expected.size(around)) {
                return;
            }
            List<List<String>> inOrder = new ArrayList<>(groups.keySet());
            for (int i = expected.starts()[around]; i < expected.starts()[around + 1]; i++) {
                List<String> key = new ArrayList<>();
                for (Link link : links) {
                    key.add(Leaves.normal(Objects.requireNonNull(
                            Objects.requireNonNull(link.leaf()).cells().get(i))));
                }
                List<Integer> members = groups.get(key);
                if (members == null) {
                    return;
                }
                order[i] = groupsBefore + inOrder.indexOf(key);
                turns.add(turn(chain, links, members, around, base));
            }
            groupsBefore += groups.size();
            base += sizes[around];
        }
        if (Arrays.stream(order).distinct().count() == order.length) {
            List<Column> keys = links.stream().map(Link::column).toList();
            GroupNames names = GroupNames.of(chain, keys, taken);
            String clause = chain.clause() + " " + names.clause();
            add(clause, chain.around().with(names.vars(), turns), order, chain.over(), cost);
        }
    }

    private static Map<List<String>, List<Integer>> grouped(List<Link> links, int base, int size) {
        Map<List<String>, List<Integer>> groups = new LinkedHashMap<>();
        for (int i = base; i < base + size; i++) {
            List<String> key = new ArrayList<>();
            for (Link link : links) {
                Cell cell = link.column().cells().get(i);
                key.add(cell == null ? "" : Leaves.normal(cell));
            }
            groups.computeIfAbsent(key, k -> new ArrayList<>()).add(i);
        }
        return groups;
    }

    private static @Nullable Object[] turn(Chain chain, List<Link> links, List<Integer> members, int around, int base) {
        @Nullable Object[] own = new @Nullable Object[links.size() + 1];
        for (int k = 0; k < links.size(); k++) {
            own[k] = links.get(k).column().cells().get(members.get(0));
        }
        List<Item> items = new ArrayList<>();
        for (int member : members) {
            items.add(chain.member(chain.turns().get(around).get(member - base)));
        }
        own[links.size()] = items;
        return Scope.joined(chain.around().turns().get(around), own);
    }
}
