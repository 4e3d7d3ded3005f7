package dev.morphema.plan;

import dev.morphema.check.Resolution;
import dev.morphema.syntax.Loop;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Lowers the clauses of a loop. */
final class LoopLowering implements Loop.Visitor {
    private final UnitLowering unit;
    private final Resolution resolution;
    private final List<Operator> operators = new ArrayList<>();
    /** The slots of the names that a turn has at this point. */
    private List<Integer> names = new ArrayList<>();

    private Loop.@Nullable Bind first;
    private @Nullable Term sequence;

    LoopLowering(UnitLowering unit, Resolution resolution) {
        this.unit = unit;
        this.resolution = resolution;
    }

    /** {@return the loop, when all its clauses are lowered} */
    Pipeline pipeline() {
        Loop.Bind bind = Objects.requireNonNull(first);
        return new Pipeline(
                Objects.requireNonNull(sequence),
                resolution.slot(bind),
                bind.optional(),
                operators,
                names,
                Pipeline.Supply.PULLED);
    }

    private int named(Object node) {
        int slot = resolution.slot(node);
        names.add(slot);
        return slot;
    }

    @Override
    public void bind(Loop.Bind bind) {
        Term over = unit.term(bind.sequence());
        int slot = named(bind);
        if (first == null) {
            first = bind;
            sequence = over;
        } else {
            operators.add(new Operator.Unnest(over, slot, bind.optional()));
        }
    }

    @Override
    public void where(Loop.Where where) {
        operators.add(new Operator.Filter(unit.term(where.condition())));
    }

    @Override
    public void let(Loop.Let let) {
        int slot = named(let);
        operators.add(new Operator.Let(slot, unit.term(let.value())));
    }

    @Override
    public void groupBy(Loop.GroupBy groupBy) {
        List<Term> keys =
                unit.terms(groupBy.keys().stream().map(Loop.Key::value).toList());
        Term member = unit.member(groupBy.span(), resolution.member(groupBy));
        names = new ArrayList<>();
        List<Integer> keySlots = groupBy.keys().stream().map(this::named).toList();
        operators.add(new Operator.Group(
                groupBy.runs() ? Operator.Grouping.RUNS : Operator.Grouping.BY_KEY,
                keys,
                null,
                member,
                keySlots,
                named(groupBy),
                true));
    }

    @Override
    public void groupFrom(Loop.GroupFrom groupFrom) {
        Term begins = unit.term(groupFrom.condition());
        Term member = unit.member(groupFrom.span(), resolution.member(groupFrom));
        names = new ArrayList<>();
        operators.add(new Operator.Group(
                Operator.Grouping.FROM, List.of(), begins, member, List.of(), named(groupFrom), true));
    }

    @Override
    public void sortBy(Loop.SortBy sortBy) {
        operators.add(new Operator.Sort(
                unit.terms(sortBy.keys().stream().map(Loop.SortKey::value).toList()),
                sortBy.keys().stream().map(Loop.SortKey::descending).toList(),
                List.copyOf(names),
                0));
    }

    @Override
    public void distinctBy(Loop.DistinctBy distinctBy) {
        operators.add(new Operator.Distinct(unit.terms(distinctBy.keys())));
    }

    @Override
    public void numbered(Loop.Numbered numbered) {
        int slot = named(numbered);
        operators.add(new Operator.Number(slot, unit.terms(numbered.keys())));
    }

    @Override
    public void take(Loop.Take take) {
        operators.add(new Operator.Take(unit.term(take.count())));
    }

    @Override
    public void keyedBy(Loop.KeyedBy keyedBy) {
        // not an operator: the key belongs to what each turn writes
    }
}
