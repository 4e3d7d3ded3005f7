package dev.morphema.engine;

import dev.morphema.plan.Operator;
import java.util.ArrayList;
import java.util.List;

/** Compiles the operators of one loop into stages. */
final class LoopCompiler implements Operator.Visitor {
    private final UnitCompiler unit;
    private final List<Stage> stages = new ArrayList<>();

    LoopCompiler(UnitCompiler unit) {
        this.unit = unit;
    }

    List<Stage> stages() {
        return stages;
    }

    /** {@return the first stage that holds less than all its turns} */
    int holding() {
        int holding = 0;
        while (!(stages.get(holding) instanceof Stage.Holding)) {
            holding++;
        }
        return holding;
    }

    @Override
    public void unnest(Operator.Unnest unnest) {
        stages.add(new Stages.Bind(unit.node(unnest.sequence()), unnest.slot(), unnest.optional()));
    }

    @Override
    public void filter(Operator.Filter filter) {
        stages.add(new Stages.Where(unit.rule(filter.condition())));
    }

    @Override
    public void present(Operator.Present present) {
        stages.add(new Stages.Given(unit.node(present.item())));
    }

    @Override
    public void let(Operator.Let let) {
        Node rule = unit.rule(let.value());
        unit.lazy(let.slot(), () -> rule);
        stages.add(new Stages.Let(let.slot()));
    }

    @Override
    public void group(Operator.Group group) {
        Node begins = group.begins() == null ? null : unit.node(group.begins());
        Stages.Keys keys = group.begins() == null ? unit.keys(group.keys()) : null;
        Node member = unit.node(group.member());
        int[] keySlots = group.keySlots().stream().mapToInt(Integer::intValue).toArray();
        GroupStages.Names names = new GroupStages.Names(keySlots, unit.begin(group.members(), group.kept()));
        stages.add(
                keys != null && group.grouping() == Operator.Grouping.BY_KEY
                        ? new GroupStages.By(keys, member, names)
                        : new GroupStages.Runs(keys, begins, member, names));
    }

    @Override
    public void sort(Operator.Sort sort) {
        boolean[] descending = new boolean[sort.descending().size()];
        for (int i = 0; i < descending.length; i++) {
            descending[i] = sort.descending().get(i);
        }
        int[] names = sort.names().stream().mapToInt(Integer::intValue).toArray();
        SortStages.Order order = new SortStages.Order(unit.keys(sort.keys()), descending, names);
        stages.add(sort.limit() == 0 ? new SortStages.All(order) : new SortStages.First(order, sort.limit()));
    }

    @Override
    public void distinct(Operator.Distinct distinct) {
        stages.add(new Stages.Distinct(unit.keys(distinct.keys())));
    }

    @Override
    public void number(Operator.Number number) {
        stages.add(new Stages.Numbered(number.slot(), unit.keys(number.keys())));
    }

    @Override
    public void take(Operator.Take take) {
        stages.add(new Stages.Take(unit.node(take.count())));
    }
}
