package dev.morphema.engine;

import dev.morphema.check.Resolution;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Compiles the clauses of one loop into stages. */
final class LoopCompiler implements Loop.Visitor {
    private final UnitCompiler unit;
    private final Resolution resolution;
    private final MemberUses memberUses;
    private final List<Stage> stages = new ArrayList<>();
    /**
     * The slots of the names that the loop has at this point; a sort keeps their values for each
     * turn.
     */
    private List<Integer> names = new ArrayList<>();

    private @Nullable Node sequence;
    /** The last clause so far that begins a loop. */
    private Loop.@Nullable Bind last;

    LoopCompiler(UnitCompiler unit, Resolution resolution, MemberUses memberUses) {
        this.unit = unit;
        this.resolution = resolution;
        this.memberUses = memberUses;
    }

    Node sequence() {
        return Objects.requireNonNull(sequence);
    }

    List<Integer> names() {
        return names;
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

    private Stages.Keys keys(List<Expr> exprs) {
        return unit.keys(exprs);
    }

    private int named(Object node) {
        int slot = resolution.slot(node);
        names.add(slot);
        return slot;
    }

    @Override
    public void bind(Loop.Bind bind) {
        Node over = unit.node(bind.sequence());
        int slot = named(bind);
        last = bind;
        if (sequence == null) {
            sequence = over;
        } else {
            stages.add(new Stages.Bind(over, slot, bind.optional()));
        }
    }

    @Override
    public void where(Loop.Where where) {
        Node condition = unit.node(where.condition());
        if (last != null && isAtHand(last) && !last.optional() && unit.isInvariant(last.sequence())) {
            findByKey(resolution.slot(last), where.condition(), condition);
        }
        stages.add(new Stages.Where(condition));
    }

    /** Whether a clause that begins a loop is the last one so far. */
    private boolean isAtHand(Loop.Bind bind) {
        return stages.isEmpty()
                || stages.get(stages.size() - 1) instanceof Stages.Bind stage && stage.slot() == resolution.slot(bind);
    }

    /**
     * Lets the loop that was begun just now have only the values that can fulfil a condition, if
     * that asks for keys.
     */
    private void findByKey(int slot, Expr expr, Node condition) {
        List<Node> keys = new ArrayList<>();
        List<Node> asked = new ArrayList<>();
        collectKeys(slot, expr, condition, keys, asked);
        if (keys.isEmpty()) {
            return;
        }
        int last = stages.size() - 1;
        Node all = last < 0 ? sequence() : ((Stages.Bind) stages.get(last)).sequence();
        Node found = new KeyedItems(all, slot, unit.keysOf(keys), unit.keysOf(asked));
        if (last < 0) {
            sequence = found;
        } else {
            stages.set(last, new Stages.Bind(found, slot, false));
        }
        unit.findsByKey(found);
    }

    /**
     * Adds the keys that a condition asks for before anything else; says whether it asks for
     * nothing else.
     */
    private boolean collectKeys(int slot, Expr expr, Node condition, List<Node> keys, List<Node> asked) {
        if (!(expr instanceof Expr.Binary binary)) {
            return false;
        }
        if (condition instanceof OperatorNodes.Logic logic && binary.operator() == Expr.Operator.AND) {
            return collectKeys(slot, binary.left(), logic.left(), keys, asked)
                    && collectKeys(slot, binary.right(), logic.right(), keys, asked);
        }
        if (!(condition instanceof OperatorNodes.Compared compared) || binary.operator() != Expr.Operator.EQUAL) {
            return false;
        }
        InvariantCheck ofItem = new InvariantCheck(resolution, used -> used == slot);
        InvariantCheck ofOthers = new InvariantCheck(resolution, used -> used != slot);
        if (ofItem.isInvariant(binary.left()) && ofOthers.isInvariant(binary.right())) {
            keys.add(compared.left());
            asked.add(compared.right());
            return true;
        }
        if (ofItem.isInvariant(binary.right()) && ofOthers.isInvariant(binary.left())) {
            keys.add(compared.right());
            asked.add(compared.left());
            return true;
        }
        return false;
    }

    @Override
    public void let(Loop.Let let) {
        int slot = named(let);
        Node rule = unit.node(let.value());
        unit.lazy(slot, () -> rule);
        stages.add(new Stages.Let(slot));
    }

    @Override
    public void groupBy(Loop.GroupBy groupBy) {
        Stages.Keys keys = keys(groupBy.keys().stream().map(Loop.Key::value).toList());
        Node member = unit.member(groupBy.span(), resolution.member(groupBy));
        names = new ArrayList<>();
        int[] keySlots = groupBy.keys().stream().mapToInt(this::named).toArray();
        GroupStages.Names slots = new GroupStages.Names(keySlots, memberUses.begin(named(groupBy)));
        stages.add(
                groupBy.runs()
                        ? new GroupStages.Runs(keys, null, member, slots)
                        : new GroupStages.By(keys, member, slots));
    }

    @Override
    public void groupFrom(Loop.GroupFrom groupFrom) {
        Node begins = unit.node(groupFrom.condition());
        Node member = unit.member(groupFrom.span(), resolution.member(groupFrom));
        names = new ArrayList<>();
        stages.add(new GroupStages.Runs(
                null, begins, member, new GroupStages.Names(new int[0], memberUses.begin(named(groupFrom)))));
    }

    @Override
    public void sortBy(Loop.SortBy sortBy) {
        Stages.Keys keys = keys(sortBy.keys().stream().map(Loop.SortKey::value).toList());
        boolean[] descending = new boolean[sortBy.keys().size()];
        for (int i = 0; i < descending.length; i++) {
            descending[i] = sortBy.keys().get(i).descending();
        }
        int[] kept = names.stream().mapToInt(Integer::intValue).toArray();
        stages.add(new SortStages.All(new SortStages.Order(keys, descending, kept)));
    }

    @Override
    public void distinctBy(Loop.DistinctBy distinctBy) {
        stages.add(new Stages.Distinct(keys(distinctBy.keys())));
    }

    @Override
    public void numbered(Loop.Numbered numbered) {
        stages.add(new Stages.Numbered(named(numbered), keys(numbered.keys())));
    }

    @Override
    public void take(Loop.Take take) {
        int last = stages.size() - 1;
        int most = SortStages.mostFirst(take);
        if (last >= 0 && most > 0 && stages.get(last) instanceof SortStages.All sort) {
            stages.set(last, new SortStages.First(sort.order(), most));
        } else {
            stages.add(new Stages.Take(unit.node(take.count())));
        }
    }

    /**
     * Of a loop that ends with a sort no more is wanted than the first turn that gives something.
     */
    void wantOnlyFirst(Node item) {
        SortStages.All sort = (SortStages.All) stages.remove(stages.size() - 1);
        stages.add(new Stages.Given(item));
        stages.add(new SortStages.First(sort.order(), 1));
    }

    @Override
    public void keyedBy(Loop.KeyedBy keyedBy) {
        // not a stage: the key belongs to what each turn writes
    }
}
