package dev.morphema.draft;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The names at one place of the mapping, with what they stand for each time that the place is
 * reached.
 *
 * @param vars the names
 * @param turns for each time what the names stand for, in the order of the names
 */
record Scope(List<Var> vars, List<@Nullable Object[]> turns) {
    /** {@return how often the place is reached} */
    int size() {
        return turns.size();
    }

    /** {@return the same names at some of the turns} */
    Scope only(List<Integer> which) {
        return new Scope(vars, which.stream().map(turns::get).toList());
    }

    /** {@return more names, with what they stand for at each of the given turns} */
    Scope with(List<Var> more, List<@Nullable Object[]> moreTurns) {
        List<Var> all = new ArrayList<>(vars);
        all.addAll(more);
        return new Scope(all, moreTurns);
    }

    /** {@return what a turn holds, and more} */
    static @Nullable Object[] joined(@Nullable Object[] turn, @Nullable Object... more) {
        @Nullable Object[] all = new @Nullable Object[turn.length + more.length];
        System.arraycopy(turn, 0, all, 0, turn.length);
        System.arraycopy(more, 0, all, turn.length, more.length);
        return all;
    }
}
