package dev.morphema.plan;

import java.util.List;

/**
 * A block of statements.
 *
 * @param statements in order
 * @param emptied the slots of lets and kept fields, forgotten when the block is entered
 * @param guardedIn the slot of the watch over names that may come twice, or -1 if none can
 */
public record Emits(List<Emit> statements, List<Integer> emptied, int guardedIn) {
    public Emits {
        statements = List.copyOf(statements);
        emptied = List.copyOf(emptied);
    }

    Emits rebuilt(PlanPass pass) {
        return new Emits(
                statements.stream().map(pass::emit).toList(),
                pass.slots(emptied),
                guardedIn < 0 ? guardedIn : pass.slot(guardedIn));
    }
}
