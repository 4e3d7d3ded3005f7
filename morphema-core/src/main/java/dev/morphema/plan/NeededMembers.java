package dev.morphema.plan;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/**
 * The groups of one unit whose members are needed as values: they are held, or a loop that groups
 * them once more makes groups whose members are needed.
 */
final class NeededMembers extends PlanPass {
    private final Set<Integer> held = new HashSet<>();
    /** For members of groups the members of the groups that loops make of them while they come. */
    private final Map<Integer, Set<Integer>> inner = new HashMap<>();

    private NeededMembers() {}

    static NeededMembers in(Plan.Unit unit) {
        NeededMembers needed = new NeededMembers();
        unit.rebuilt(needed);
        return needed;
    }

    /** {@return whether a loop that takes members while they come makes groups that need theirs} */
    boolean areBy(Pipeline folded) {
        for (Operator operator : folded.operators()) {
            if (operator instanceof Operator.Group group) {
                return are(group.members());
            }
            if (operator instanceof Operator.Sort) {
                return false;
            }
        }
        return false;
    }

    private boolean are(int members) {
        return held.contains(members)
                || inner.getOrDefault(members, Set.of()).stream().anyMatch(this::are);
    }

    @Override
    public Operator operator(Operator operator) {
        if (operator instanceof Operator.Group group && group.kept()) {
            held.add(group.members());
        }
        return super.operator(operator);
    }

    @Override
    public Pipeline pipeline(Pipeline pipeline) {
        if (pipeline.supply() == Pipeline.Supply.FOLDED && pipeline.sequence() instanceof Term.Name members) {
            pipeline.operators().stream()
                    .filter(Operator.Group.class::isInstance)
                    .findFirst()
                    .ifPresent(group -> inner.computeIfAbsent(members.slot(), slot -> new HashSet<>())
                            .add(((Operator.Group) group).members()));
        }
        return super.pipeline(pipeline);
    }
}
