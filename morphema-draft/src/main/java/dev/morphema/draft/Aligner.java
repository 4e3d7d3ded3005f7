package dev.morphema.draft;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Finds how the turns of a loop become the records of a target: one each, some of them, or groups. */
final class Aligner {
    private static final int MOST_FILTERS = 24;
    private static final int MOST_CODES = 6;

    private final List<Item> records;
    /** For each turn around, at which record its own begin; and the end. */
    private final int[] starts;

    private final List<Leaves.Leaf> leaves;
    private final Set<String> taken;
    private final Tables tables;
    private final List<Alignment> found = new ArrayList<>();

    /**
     * @param children for each turn around, the records to explain
     * @param taken names that new ones may not hide
     * @param tables what keys of groups can be looked up in
     */
    Aligner(List<List<Item>> children, Set<String> taken, Tables tables) {
        this.tables = tables;
        this.records = new ArrayList<>();
        this.starts = new int[children.size() + 1];
        for (int i = 0; i < children.size(); i++) {
            records.addAll(children.get(i));
            starts[i + 1] = records.size();
        }
        this.leaves = Leaves.of(records);
        this.taken = taken;
    }

    /** {@return the ways in which some loops may be meant} */
    List<Alignment> align(List<Chain> chains) {
        for (Chain chain : chains) {
            Columns columns = new Columns(chain.scope());
            whole(chain, columns.single(), 0);
            for (Chain joined : joins(chain, columns.single())) {
                Columns own = new Columns(joined.scope());
                whole(joined, own.single(), 1.2);
                groups(joined, own.single(), 2);
            }
            some(chain, columns.single());
            headed(chain, columns.single());
            groups(chain, columns.single(), 1);
        }
        return found;
    }

    private final Set<String> keptBefore = new HashSet<>();

    /** {@return groups of what is left of loops by some condition on a code}; for when there is nothing better. */
    List<Alignment> alignFiltered(List<Chain> chains) {
        found.clear();
        for (Chain chain : chains) {
            hidden(chain);
            int tried = 0;
            List<Column> columns = new ArrayList<>(new Columns(chain.scope()).single());
            // What has few values is a state more likely than what has many.
            columns.sort(Comparator.comparingInt(column -> column.distinct().size()));
            for (Column column : columns) {
                Set<String> codes = column.distinct();
                boolean gaps = column.cells().contains(null);
                if (codes.size() + (gaps ? 1 : 0) < 2 || codes.size() > MOST_CODES) {
                    continue;
                }
                for (String code : codes) {
                    for (boolean equal : new boolean[] {false, true}) {
                        if (tried < MOST_FILTERS && filtered(chain, column, code, equal)) {
                            tried++;
                        }
                    }
                }
            }
        }
        return found;
    }

    /** Says whether it is another choice of turns than those before. */
    private boolean filtered(Chain chain, Column column, String code, boolean equal) {
        boolean[] kept = new boolean[column.cells().size()];
        Cell constant = null;
        for (int i = 0; i < kept.length; i++) {
            Cell cell = column.cells().get(i);
            boolean same = cell != null && cell.text().equals(code);
            constant = same ? cell : constant;
            kept[i] = same == equal;
        }
        String condition =
                column.expression() + (equal ? " == " : " != ") + Texts.constant(Objects.requireNonNull(constant));
        if (!keptBefore.add(Arrays.hashCode(kept) + " " + chain.clause())) {
            return false;
        }
        Chain left = chain.only(condition, kept);
        groups(left, new Columns(left.scope()).single(), 2);
        return true;
    }

    private boolean fits(int[] sizes) {
        for (int i = 0; i < sizes.length; i++) {
            if (sizes[i] != starts[i + 1] - starts[i]) {
                return false;
            }
        }
        return true;
    }

    /** One record for each turn, in order or sorted. */
    private void whole(Chain chain, List<Column> columns, double cost) {
        if (!fits(chain.sizes()) || records.isEmpty()) {
            return;
        }
        Scope scope = chain.scope();
        int[] inOrder = IntStream.range(0, scope.size()).toArray();
        int score = matches(columns, inOrder);
        // Where nothing is as it was, as many as there are wanted may be those.
        boolean asMany = records.size() > 2;
        if (score > 0 || records.size() == 1 || asMany) {
            add(chain.clause(), scope, inOrder, chain.over(), cost + (score > 0 ? 0 : 1));
        }
        if (score < leaves.size()) {
            int[] permuted = matching(chain, columns);
            if (permuted != null && !Arrays.equals(permuted, inOrder) && matches(columns, permuted) > score) {
                add(
                        chain.clause(),
                        scope.only(IntStream.of(permuted).boxed().toList()),
                        permuted,
                        chain.over(),
                        cost + 0.2);
            }
        }
    }

    private void add(String clause, Scope scope, int[] order, String over, double cost) {
        if (found.stream().anyMatch(known -> known.clause().equals(clause))) {
            return;
        }
        found.add(new Alignment(clause, scope, starts, order, over, cost));
    }

    /** How many values of the records stand in the turns, taken in some order. */
    private int matches(List<Column> columns, int[] order) {
        int count = 0;
        for (Leaves.Leaf leaf : leaves) {
            for (Column column : columns) {
                boolean same = true;
                boolean any = false;
                for (int i = 0; same && i < order.length; i++) {
                    Cell want = leaf.cells().get(i);
                    same = Leaves.alike(want, column.cells().get(order[i]));
                    any |= want != null;
                }
                if (same && any) {
                    count++;
                    break;
                }
            }
        }
        return count;
    }

    /** {@return for each record the turn with the same values, if they tell; or null} */
    private int @Nullable [] matching(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        int best = 0;
        int[] order = null;
        for (Leaves.Leaf leaf : leaves) {
            for (Column column : columns) {
                int[] own = matched(leaf, column, sizes);
                if (own != null) {
                    int score = matches(columns, own);
                    if (score > best) {
                        best = score;
                        order = own;
                    }
                }
            }
        }
        return order;
    }

    private int @Nullable [] matched(Leaves.Leaf leaf, Column column, int[] sizes) {
        int[] order = new int[records.size()];
        int base = 0;
        for (int around = 0; around < sizes.length; around++) {
            Map<String, List<Integer>> turns = new HashMap<>();
            for (int i = base; i < base + sizes[around]; i++) {
                Cell cell = column.cells().get(i);
                if (cell != null) {
                    turns.computeIfAbsent(Leaves.normal(cell), n -> new ArrayList<>())
                            .add(i);
                }
            }
            for (int i = starts[around]; i < starts[around + 1]; i++) {
                Cell want = leaf.cells().get(i);
                List<Integer> same = want == null ? null : turns.get(Leaves.normal(want));
                if (same == null || same.isEmpty()) {
                    return null;
                }
                order[i] = same.remove(0);
            }
            base += sizes[around];
        }
        return order;
    }

    /** Some of the turns, by a condition that is found out. */
    private void some(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        boolean fewer = false;
        for (int i = 0; i < sizes.length; i++) {
            int wanted = starts[i + 1] - starts[i];
            if (wanted > sizes[i]) {
                return;
            }
            fewer |= wanted < sizes[i];
        }
        int[] order = fewer && !records.isEmpty() ? matching(chain, columns) : null;
        if (order == null) {
            return;
        }
        boolean[] kept = new boolean[chain.scope().size()];
        for (int turn : order) {
            kept[turn] = true;
        }
        List<Term> terms =
                columns.stream().map(Term::of).filter(Objects::nonNull).toList();
        List<Conditions.Condition> conditions = new Conditions(columns, terms).find(kept);
        if (conditions.isEmpty()) {
            return;
        }
        Chain left = chain.only(conditions.get(0).expression(), kept);
        Map<Integer, Integer> places = new HashMap<>();
        for (int i = 0; i < kept.length; i++) {
            if (kept[i]) {
                places.put(i, places.size());
            }
        }
        int[] within = IntStream.of(order).map(places::get).toArray();
        add(
                left.clause(),
                left.scope().only(IntStream.of(within).boxed().toList()),
                within,
                chain.over(),
                0.6 + conditions.get(0).cost() * 0.2);
    }

    /** {@return loops over a whole sequence, each with only what belongs to the turn around} */
    private List<Chain> joins(Chain chain, List<Column> columns) {
        List<Chain> joined = new ArrayList<>();
        int outer = chain.around().vars().size();
        boolean inTurns = chain.around().vars().stream()
                .anyMatch(variable -> variable.form() == Var.Form.ONE || variable.form() == Var.Form.KEY);
        if (!inTurns || isWithin(chain, outer)) {
            return joined;
        }
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        List<Column> inner =
                columns.stream().filter(column -> own.contains(root(column))).toList();
        List<Column> others =
                columns.stream().filter(column -> !own.contains(root(column))).toList();
        for (Column key : inner) {
            for (Column foreign : others) {
                boolean[] kept = new boolean[key.cells().size()];
                boolean some = false;
                for (int i = 0; i < kept.length; i++) {
                    Cell cell = key.cells().get(i);
                    kept[i] =
                            cell != null && Cell.sameText(cell, foreign.cells().get(i));
                    some |= kept[i];
                }
                Chain left = some ? chain.only(key.expression() + " == " + foreign.expression(), kept) : null;
                if (left != null && couldFit(left.sizes())) {
                    joined.add(left);
                }
            }
        }
        return joined;
    }

    private static boolean isWithin(Chain chain, int outer) {
        String root = chain.over().replaceAll("\\..*", "");
        return chain.around().vars().subList(0, outer).stream()
                .anyMatch(variable -> variable.name().equals(root)
                        && variable.form() != Var.Form.RECORDS
                        && variable.form() != Var.Form.SOURCE);
    }

    static String root(Column column) {
        String plain = column.expression().replaceAll("^((first|left)\\(|\\w+\\[)", "");
        int end = 0;
        while (end < plain.length() && Character.isJavaIdentifierPart(plain.charAt(end))) {
            end++;
        }
        return plain.substring(0, end);
    }

    private boolean couldFit(int[] sizes) {
        boolean any = false;
        for (int i = 0; i < sizes.length; i++) {
            int wanted = starts[i + 1] - starts[i];
            if (sizes[i] < wanted || wanted == 0 && sizes[i] > 0) {
                return false;
            }
            any |= wanted > 0;
        }
        return any;
    }

    /** One record for each row with some code, and the rows behind it: headers and their details. */
    private void headed(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        if (records.isEmpty() || Arrays.stream(sizes).sum() <= records.size()) {
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
        Set<String> names = new HashSet<>(taken);
        names.addAll(chain.names());
        String loop = chain.vars().get(chain.vars().size() - 1).name();
        String about = chain.vars().get(chain.vars().size() - 1).about();
        String members = Names.first(names, Names.plural(loop), "members", "same");
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
            if (groups.size() != starts[around + 1] - starts[around]) {
                return;
            }
            for (List<Item> group : groups) {
                turns.add(Scope.joined(chain.around().turns().get(around), group));
            }
            base += sizes[around];
        }
        if (constant != null) {
            String clause = chain.clause() + " group from " + column.expression() + " == " + Texts.constant(constant)
                    + " as " + members;
            Scope scope = chain.around().with(List.of(new Var(members, Var.Form.GROUP, about)), turns);
            add(clause, scope, IntStream.range(0, turns.size()).toArray(), chain.over(), 1.2);
        }
    }

    /** One record for each value of a key, or each pair of values of two. */
    private void groups(Chain chain, List<Column> plain, double cost) {
        List<Column> columns = new ArrayList<>(plain);
        plain.forEach(column -> columns.addAll(DatedColumns.of(column)));
        columns.addAll(tables.lookups(new Columns(chain.scope()).repeated(), plain, Set.of(chain.over())));
        int[] sizes = chain.sizes();
        for (int i = 0; i < sizes.length; i++) {
            if (sizes[i] < starts[i + 1] - starts[i] || sizes[i] > 0 && starts[i + 1] == starts[i]) {
                return;
            }
        }
        // Groups of one are no groups.
        if (records.isEmpty() || Arrays.stream(sizes).sum() <= records.size()) {
            return;
        }
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        List<Link> links = new ArrayList<>();
        for (Leaves.Leaf leaf : leaves) {
            columns.stream()
                    .filter(column -> own.contains(root(column)) && isAmong(leaf, column, sizes))
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

    /** Groups whose key is no field of the records: they are told by how many there are, and by totals. */
    private void hidden(Chain chain) {
        int[] sizes = chain.sizes();
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        for (Column column : new Columns(chain.scope()).single()) {
            boolean fits = own.contains(root(column)) && Arrays.stream(sizes).sum() > records.size();
            List<List<Integer>> groups = new ArrayList<>();
            int base = 0;
            for (int around = 0; fits && around < sizes.length; around++) {
                Map<List<String>, List<Integer>> here = grouped(List.of(new Link(null, column)), base, sizes[around]);
                fits = here.size() == starts[around + 1] - starts[around];
                groups.addAll(here.values());
                base += sizes[around];
            }
            if (fits) {
                hidden(chain, column, groups);
            }
        }
    }

    private void hidden(Chain chain, Column key, List<List<Integer>> groups) {
        Set<String> names = new HashSet<>(taken);
        names.addAll(chain.names());
        String name = Names.variable(key.name().replaceAll(".* ", ""), names);
        Var loop = chain.vars().get(chain.vars().size() - 1);
        String members = Names.first(names, Names.plural(loop.name()), "members", "same");
        List<Var> vars = List.of(new Var(name, Var.Form.KEY), new Var(members, Var.Form.GROUP, loop.about()));
        List<@Nullable Object[]> turns = new ArrayList<>();
        List<@Nullable Object[]> flat = new ArrayList<>();
        chain.turns().forEach(flat::addAll);
        for (int around = 0; around + 1 < starts.length; around++) {
            for (int i = starts[around]; i < starts[around + 1]; i++) {
                List<Item> items = new ArrayList<>();
                groups.get(i).forEach(turn -> items.add(chain.member(flat.get(turn))));
                Cell cell = key.cells().get(groups.get(i).get(0));
                turns.add(Scope.joined(chain.around().turns().get(around), cell, items));
            }
        }
        Scope scope = chain.around().with(vars, turns);
        String clause = chain.clause() + " group by " + name + " = " + key.expression() + " as " + members;
        int[] order = byTotals(scope);
        if (order != null) {
            add(clause, scope.only(IntStream.of(order).boxed().toList()), order, chain.over(), 1.6);
        }
    }

    /** {@return for each record the group with the same total of something; null if no total tells} */
    private int @Nullable [] byTotals(Scope groups) {
        int[] sizes = new int[starts.length - 1];
        for (int i = 0; i < sizes.length; i++) {
            sizes[i] = starts[i + 1] - starts[i];
        }
        for (Term term : new Aggregates(new Columns(groups).repeated()).terms()) {
            List<@Nullable Cell> cells = new ArrayList<>();
            term.values().forEach(value -> cells.add(value == null ? null : Cell.text(value.toPlainString())));
            Column totals = new Column(term.expression(), term.about(), cells, term.cost());
            for (Leaves.Leaf leaf : leaves) {
                boolean telling =
                        new Wanted(leaf.name(), leaf.cells(), false).distinct().size() > 1;
                int[] order = telling ? matched(leaf, totals, sizes) : null;
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
            for (int i = starts[around]; i < starts[around + 1]; i++) {
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
        Set<String> names = new HashSet<>(taken);
        names.addAll(chain.names());
        List<Var> vars = new ArrayList<>();
        List<String> keys = new ArrayList<>();
        for (Link link : links) {
            String name = Names.variable(link.column().name().replaceAll(".* ", ""), names);
            vars.add(new Var(name, Var.Form.KEY));
            keys.add(name + " = " + link.column().expression());
        }
        String loop = chain.vars().get(chain.vars().size() - 1).name();
        String about = chain.vars().get(chain.vars().size() - 1).about();
        String members = Names.first(names, Names.plural(loop), "members", "same");
        vars.add(new Var(members, Var.Form.GROUP, about));
        List<@Nullable Object[]> turns = new ArrayList<>();
        int[] order = new int[records.size()];
        int base = 0;
        int groupsBefore = 0;
        for (int around = 0; around < sizes.length; around++) {
            Map<List<String>, List<Integer>> groups = grouped(links, base, sizes[around]);
            if (groups.size() != starts[around + 1] - starts[around]) {
                return;
            }
            List<List<String>> inOrder = new ArrayList<>(groups.keySet());
            for (int i = starts[around]; i < starts[around + 1]; i++) {
                List<String> key = new ArrayList<>();
                for (Link link : links) {
                    key.add(Leaves.normal(Objects.requireNonNull(
                            Objects.requireNonNull(link.leaf()).cells().get(i))));
                }
                List<Integer> members0 = groups.get(key);
                if (members0 == null) {
                    return;
                }
                order[i] = groupsBefore + inOrder.indexOf(key);
                turns.add(turn(chain, links, members0, around, base));
            }
            groupsBefore += groups.size();
            base += sizes[around];
        }
        if (Arrays.stream(order).distinct().count() == order.length) {
            String clause = chain.clause() + " group by " + String.join(", ", keys) + " as " + members;
            add(clause, chain.around().with(vars, turns), order, chain.over(), cost);
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
