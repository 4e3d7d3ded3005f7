package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A loop whose turns are those records of the target that are to be explained, one by one.
 *
 * @param clause the loop as far as it is known: for, where, group by
 * @param scope what is in scope in each turn, in the order of the target
 * @param starts for each turn around, at which turn of the scope its own begin; and the end
 * @param order for each turn, which it is by the loop alone: where that goes down, it is sorted
 * @param over the sequence that is gone through
 * @param cost how far-fetched it is
 */
record Alignment(String clause, Scope scope, int[] starts, int[] order, String over, double cost) {
    /** {@return whether the loop gives the order of the target as it is} */
    boolean isInOrder() {
        for (int around = 0; around + 1 < starts.length; around++) {
            for (int i = starts[around] + 1; i < starts[around + 1]; i++) {
                if (order[i] < order[i - 1]) {
                    return false;
                }
            }
        }
        return true;
    }

    /**
     * {@return the loop with a name for the number of each turn within those of one turn around}
     */
    Alignment numbered(String name) {
        List<@Nullable Object[]> turns = new ArrayList<>();
        for (int around = 0; around + 1 < starts.length; around++) {
            for (int i = starts[around]; i < starts[around + 1]; i++) {
                Cell number = new Cell(Kind.NUMBER, String.valueOf(i - starts[around] + 1));
                turns.add(Scope.joined(scope.turns().get(i), number));
            }
        }
        Scope more = scope.with(List.of(new Var(name, Var.Form.NUMBER)), turns);
        return new Alignment(clause, more, starts, order, over, cost);
    }
}
