package dev.morphema.draft;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Finds how the turns of a loop become the records of a target: one each, some of them, or groups.
 */
final class Aligner {
    private static final int MOST_FILTERS = 24;
    private static final int MOST_CODES = 6;

    private final Expected expected;
    private final GroupAligner groups;
    private final List<Alignment> found = new ArrayList<>();
    /** The choices of turns that were tried before. */
    private final Set<String> keptBefore = new HashSet<>();

    /**
     * @param children for each turn around, the records to explain
     * @param taken names that new ones may not hide
     * @param tables what keys of groups can be looked up in
     */
    Aligner(List<List<Item>> children, Set<String> taken, Tables tables) {
        this.expected = Expected.of(children);
        this.groups = new GroupAligner(expected, taken, tables, found);
    }

    /** {@return the ways in which some loops may be meant} */
    List<Alignment> align(List<Chain> chains) {
        for (Chain chain : chains) {
            Columns columns = new Columns(chain.scope());
            whole(chain, columns.single(), 0);
            for (Chain joined : joins(chain, columns.single())) {
                Columns own = new Columns(joined.scope());
                whole(joined, own.single(), 1.2);
                groups.byKeys(joined, own, 2);
            }
            some(chain, columns.single());
            groups.headed(chain, columns.single());
            groups.byKeys(chain, columns, 1);
        }
        return found;
    }

    /**
     * {@return groups of what is left of loops by some condition on a code}; for when there is
     * nothing better.
     */
    List<Alignment> alignFiltered(List<Chain> chains) {
        found.clear();
        for (Chain chain : chains) {
            List<Column> columns = new ArrayList<>(new Columns(chain.scope()).single());
            groups.hidden(chain, columns);
            int tried = 0;
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
        groups.byKeys(left, new Columns(left.scope()), 2);
        return true;
    }

    private boolean fits(int[] sizes) {
        for (int i = 0; i < sizes.length; i++) {
            if (sizes[i] != expected.size(i)) {
                return false;
            }
        }
        return true;
    }

    /** One record for each turn, in order or sorted. */
    private void whole(Chain chain, List<Column> columns, double cost) {
        if (!fits(chain.sizes()) || expected.records().isEmpty()) {
            return;
        }
        Scope scope = chain.scope();
        int[] inOrder = IntStream.range(0, scope.size()).toArray();
        int score = Leaves.explained(expected.leaves(), columns, inOrder);
        // Where nothing is as it was, as many as there are wanted may be those.
        boolean asMany = expected.records().size() > 2;
        if (score > 0 || expected.records().size() == 1 || asMany) {
            add(chain.clause(), scope, inOrder, chain.over(), cost + (score > 0 ? 0 : 1));
        }
        if (score < expected.leaves().size()) {
            int[] permuted = matching(chain, columns);
            if (permuted != null
                    && !Arrays.equals(permuted, inOrder)
                    && Leaves.explained(expected.leaves(), columns, permuted) > score) {
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
        groups.add(clause, scope, order, over, cost);
    }

    /** {@return for each record the turn with the same values, if they tell; or null} */
    private int @Nullable [] matching(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        int best = 0;
        int[] order = null;
        for (Leaves.Leaf leaf : expected.leaves()) {
            for (Column column : columns) {
                int[] own = expected.matched(leaf, column, sizes);
                if (own != null) {
                    int score = Leaves.explained(expected.leaves(), columns, own);
                    if (score > best) {
                        best = score;
                        order = own;
                    }
                }
            }
        }
        return order;
    }

    /** Some of the turns, by a condition that is found out. */
    private void some(Chain chain, List<Column> columns) {
        int[] sizes = chain.sizes();
        boolean fewer = false;
        for (int i = 0; i < sizes.length; i++) {
            int wanted = expected.size(i);
            if (wanted > sizes[i]) {
                return;
            }
            fewer |= wanted < sizes[i];
        }
        int[] order = fewer && !expected.records().isEmpty() ? matching(chain, columns) : null;
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
            int wanted = expected.size(i);
            if (sizes[i] < wanted || wanted == 0 && sizes[i] > 0) {
                return false;
            }
            any |= wanted > 0;
        }
        return any;
    }
}
