package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * One or several loops, one within the other, over what repeats.
 *
 * @param clause such as {@code for order in doc.order for line in order.line}
 * @param vars the names of the loops
 * @param over the sequence that the outermost goes through
 * @param turns for each turn around, the turns of the loops
 */
record Chain(String clause, List<Var> vars, String over, Scope around, List<List<@Nullable Object[]>> turns) {
    private static final int LONGEST = 3;

    /** {@return all loops that can be made over what repeats in a scope} */
    static List<Chain> all(Scope around, List<Repeat> repeats, Set<String> taken) {
        List<Chain> chains = new ArrayList<>();
        for (Repeat repeat : repeats) {
            List<List<@Nullable Object[]>> turns = new ArrayList<>();
            for (int i = 0; i < around.size(); i++) {
                turns.add(List.of(new @Nullable Object[][] {around.turns().get(i)}));
            }
            extend(new Chain("", List.of(), repeat.expression(), around, turns), repeat, taken, chains);
        }
        return chains;
    }

    private static void extend(Chain before, Repeat repeat, Set<String> taken, List<Chain> chains) {
        Set<String> names = new HashSet<>(taken);
        before.vars.forEach(variable -> names.add(variable.name()));
        String wish = Names.variable(Names.singular(repeat.name()), new HashSet<>());
        String name = Names.first(names, wish, "row", "each");
        List<Var> vars = new ArrayList<>(before.vars);
        vars.add(new Var(name, Var.Form.ONE, repeat.name()));
        List<List<@Nullable Object[]>> turns = new ArrayList<>();
        int flat = 0;
        for (List<@Nullable Object[]> own : before.turns) {
            List<@Nullable Object[]> more = new ArrayList<>();
            for (Object[] turn : own) {
                for (Item item : repeat.items().get(flat)) {
                    more.add(Scope.joined(turn, item));
                }
                flat++;
            }
            turns.add(more);
        }
        String clause =
                (before.clause.isEmpty() ? "" : before.clause + " ") + "for " + name + " in " + repeat.expression();
        Chain chain = new Chain(clause, vars, before.over, before.around, turns);
        chains.add(chain);
        if (vars.size() < LONGEST) {
            List<@Nullable Object[]> flatTurns = new ArrayList<>();
            turns.forEach(flatTurns::addAll);
            List<Var> own = List.of(vars.get(vars.size() - 1));
            List<@Nullable Object[]> last = new ArrayList<>();
            flatTurns.forEach(turn -> last.add(new @Nullable Object[] {turn[turn.length - 1]}));
            for (Repeat inner : new Columns(new Scope(own, last)).repeated()) {
                extend(chain, inner, taken, chains);
            }
        }
    }

    /** {@return the scope of all turns, one after the other} */
    Scope scope() {
        List<@Nullable Object[]> all = new ArrayList<>();
        turns.forEach(all::addAll);
        return around.with(vars, all);
    }

    /** {@return for each turn around, how many turns there are} */
    int[] sizes() {
        return turns.stream().mapToInt(List::size).toArray();
    }

    /** {@return the same loops with only some of the turns} */
    Chain only(String condition, boolean[] kept) {
        List<List<@Nullable Object[]>> left = new ArrayList<>();
        int flat = 0;
        for (List<@Nullable Object[]> own : turns) {
            List<@Nullable Object[]> some = new ArrayList<>();
            for (Object[] turn : own) {
                if (kept[flat++]) {
                    some.add(turn);
                }
            }
            left.add(some);
        }
        String joined = clause.contains(" where ") ? clause + " and " + condition : clause + " where " + condition;
        return new Chain(joined, vars, over, around, left);
    }

    /** {@return one item of a turn, as a member of a group holds it} */
    Item member(@Nullable Object[] turn) {
        if (vars.size() == 1) {
            return (Item) Objects.requireNonNull(turn[turn.length - 1]);
        }
        Map<String, Item> parts = new LinkedHashMap<>();
        for (int i = 0; i < vars.size(); i++) {
            Object held = turn[turn.length - vars.size() + i];
            parts.put(vars.get(i).name(), (Item) Objects.requireNonNull(held));
        }
        return Item.joined(parts);
    }

    /** {@return names that nothing within may have} */
    Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        around.vars().forEach(variable -> names.add(variable.name()));
        vars.forEach(variable -> names.add(variable.name()));
        return names;
    }
}
