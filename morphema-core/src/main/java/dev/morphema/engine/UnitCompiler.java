package dev.morphema.engine;

import dev.morphema.event.NameGuard;
import dev.morphema.function.Function;
import dev.morphema.plan.Emit;
import dev.morphema.plan.Emits;
import dev.morphema.plan.OutermostLoop;
import dev.morphema.plan.Output;
import dev.morphema.plan.Pipeline;
import dev.morphema.plan.PlannedTerm;
import dev.morphema.plan.Scan;
import dev.morphema.plan.Term;
import dev.morphema.plan.TermVisitor;
import dev.morphema.syntax.Span;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Compiles what runs in one frame. Subclasses are back ends. */
abstract class UnitCompiler implements TermVisitor<Node> {
    /**
     * What the units of a program share.
     *
     * @param defines each of which may be called before it is compiled
     * @param totals the functions that are calculated in readings for them
     * @param sites numbers the places that look for fields
     */
    record Shared(List<Program.Unit> defines, Map<Scan, List<TotalNode>> totals, SlotSite.Numbering sites) {}

    private final Shared shared;
    /** How a value in a slot is calculated that is calculated when first used. */
    private final Map<Integer, Supplier<Node>> lazies = new HashMap<>();
    /** By the slot of the name of the members. */
    private final Map<Integer, GroupUse> groups = new HashMap<>();

    UnitCompiler(Shared shared) {
        this.shared = shared;
    }

    /** All that runs in the frame is compiled. */
    final void complete() {
        groups.values().forEach(GroupUse::complete);
    }

    /** {@return what gives the value of a whole rule: what stands behind an equals sign} */
    abstract Node rule(Term term);

    final Node node(Term term) {
        return term.accept(this);
    }

    final List<Node> nodes(List<Term> terms) {
        List<Node> nodes = new ArrayList<>(terms.size());
        for (Term term : terms) {
            nodes.add(node(term));
        }
        return nodes;
    }

    final Stages.Keys keys(List<Term> terms) {
        return new Stages.Keys(nodes(terms), shared.sites());
    }

    @Override
    public final Node constant(Term.Constant constant) {
        return new NameNodes.Constant(constant.span(), constant.value());
    }

    @Override
    public final Node name(Term.Name name) {
        return new NameNodes.Local(name.span(), name.slot());
    }

    @Override
    public final Node lazy(Term.Lazy lazy) {
        int slot = lazy.slot();
        Node rule = Objects.requireNonNull(lazies.get(slot)).get();
        lazies.put(slot, () -> rule);
        return new NameNodes.Lazy(lazy.span(), slot, rule);
    }

    /** The value in a slot is calculated by a rule. */
    final void lazy(int slot, Supplier<Node> rule) {
        lazies.put(slot, rule);
    }

    @Override
    public final Node argument(Term.Argument argument) {
        return new NameNodes.Argument(argument.span(), argument.slot());
    }

    @Override
    public final Node global(Term.Global global) {
        return new NameNodes.Global(global.span(), global.index());
    }

    @Override
    public final Node param(Term.Param param) {
        return new NameNodes.Param(param.span(), param.index());
    }

    @Override
    public final Node rows(Term.Rows rows) {
        return new NameNodes.TableRows(rows.span(), rows.table());
    }

    @Override
    public final Node source(Term.Source source) {
        return new NameNodes.Source(source.span(), source.index());
    }

    @Override
    public final Node template(Term.Template template) {
        return new ValueNodes.Template(template.span(), nodes(template.parts()));
    }

    @Override
    public final Node step(Term.Step step) {
        Span span = step.span();
        Node base = node(step.base());
        return switch (step.axis()) {
            case FIELD, ATTRIBUTE -> new PathNodes.Named(span, base, step.name(), shared.sites());
            case ANY_FIELD -> new PathNodes.Any(span, base, false);
            case ANY_ATTRIBUTE -> new PathNodes.Any(span, base, true);
            case DEEP -> new PathNodes.Deep(span, base, step.name());
        };
    }

    @Override
    public final Node computed(Term.Computed computed) {
        return new PathNodes.Computed(computed.span(), node(computed.base()), node(computed.name()));
    }

    @Override
    public final Node lookup(Term.Lookup lookup) {
        return new PathNodes.TableLookup(lookup.span(), lookup.table(), nodes(lookup.keys()));
    }

    @Override
    public final Node call(Term.Call call) {
        List<@Nullable Value> constants = new ArrayList<>();
        for (Term argument : call.arguments()) {
            constants.add(argument instanceof Term.Constant constant ? constant.value() : null);
        }
        Function.Scalar function = call.function();
        return new CallNodes.Scalar(
                call.span(), function, nodes(call.arguments()), function.maker().make(constants));
    }

    @Override
    public final CallNodes.Aggregate aggregate(Term.Aggregate aggregate) {
        return new CallNodes.Aggregate(aggregate.span(), aggregate.function(), nodes(aggregate.arguments()));
    }

    @Override
    public final Node defined(Term.Defined defined) {
        return new CallNodes.Defined(defined.span(), shared.defines().get(defined.index()), nodes(defined.arguments()));
    }

    @Override
    public final Node inlined(Term.Inlined inlined) {
        return new CallNodes.Inlined(inlined.span(), node(inlined.body()));
    }

    @Override
    public final Node each(Term.Each each) {
        return new ValueNodes.ForEach(each.span(), loop(each.loop()), node(each.item()));
    }

    @Override
    public final Node listOf(Term.ListOf list) {
        return new ValueNodes.ListOf(list.span(), nodes(list.items()));
    }

    @Override
    public final Node recordOf(Term.RecordOf record) {
        return new ValueNodes.RecordOf(record.span(), body(record.body()));
    }

    @Override
    public final Node member(Term.Member member) {
        List<MemberNode.Part> parts = new ArrayList<>();
        member.parts().forEach(part -> parts.add(new MemberNode.Part(part.name(), node(part.value()))));
        return new MemberNode(member.span(), member.whole(), parts);
    }

    @Override
    public final Node choice(Term.Choice choice) {
        return new OperatorNodes.Choice(
                choice.span(), node(choice.condition()), node(choice.then()), node(choice.otherwise()));
    }

    @Override
    public final Node binary(Term.Binary binary) {
        Span span = binary.span();
        Node left = node(binary.left());
        boolean indexed = binary.isMembership() && binary.right() instanceof PlannedTerm.Once;
        Node right = node(indexed ? ((PlannedTerm.Once) binary.right()).term() : binary.right());
        return switch (binary.operator()) {
            case OR -> new OperatorNodes.Logic(span, true, left, right);
            case AND -> new OperatorNodes.Logic(span, false, left, right);
            case EQUAL, NOT_EQUAL, LESS, AT_MOST, MORE, AT_LEAST ->
                new OperatorNodes.Compared(span, binary.operator(), left, right);
            case IN -> new OperatorNodes.In(span, true, left, right, indexed);
            case NOT_IN -> new OperatorNodes.In(span, false, left, right, indexed);
            case COALESCE -> new OperatorNodes.Coalesce(span, left, right);
            case PLUS, MINUS, TIMES, DIVIDE, REMAINDER ->
                new OperatorNodes.Arithmetic(span, binary.operator(), left, right);
        };
    }

    @Override
    public final Node unary(Term.Unary unary) {
        Node operand = node(unary.operand());
        return unary.negation()
                ? new OperatorNodes.Not(unary.span(), operand)
                : new OperatorNodes.Negated(unary.span(), operand);
    }

    @Override
    public final Node once(PlannedTerm.Once once) {
        return new NameNodes.Once(node(once.term()));
    }

    @Override
    public final Node running(PlannedTerm.Running running) {
        return new CallNodes.Running(aggregate(running.aggregate()), group(running.members()));
    }

    @Override
    public final Node total(PlannedTerm.Total total) {
        TotalNode node = new TotalNode(aggregate(total.aggregate()), total.scan(), total.steps());
        shared.totals().computeIfAbsent(total.scan(), scan -> new ArrayList<>()).add(node);
        return node;
    }

    @Override
    public final Node scanned(PlannedTerm.Scanned scanned) {
        return new ScanNode(node(scanned.sequence()), scanned.scan());
    }

    @Override
    public final Node foundByKey(PlannedTerm.FoundByKey found) {
        return new KeyedItems(node(found.sequence()), found.slot(), keys(found.keys()), keys(found.asked()));
    }

    private GroupUse group(int members) {
        return Objects.requireNonNull(groups.get(members));
    }

    /** {@return how the members are used that a group clause puts into a slot}; no use so far. */
    final GroupUse begin(int members, boolean kept) {
        GroupUse use = new GroupUse(members, kept);
        groups.put(members, use);
        return use;
    }

    final LoopPlan loop(Pipeline loop) {
        Node sequence = node(loop.sequence());
        LoopCompiler operators = new LoopCompiler(this);
        loop.operators().forEach(operator -> operator.accept(operators));
        GroupUse use = loop.sequence() instanceof Term.Name name ? groups.get(name.slot()) : null;
        boolean folded = use != null && loop.supply() == Pipeline.Supply.FOLDED;
        LoopPlan plan = new LoopPlan(
                sequence,
                loop.slot(),
                loop.optional(),
                operators.stages(),
                loop.names(),
                folded ? new LoopPlan.OverMembers(use, use.nextNested(), operators.holding()) : null);
        if (folded) {
            use.add(plan);
        } else if (use != null && loop.supply() == Pipeline.Supply.PUSHED) {
            use.passTo(plan);
        }
        return plan;
    }

    final Content content(Output output) {
        if (output instanceof Output.Single single) {
            return new Content.Rule(rule(single.value()), single.type());
        }
        if (output instanceof Output.Nested nested) {
            return new Content.Nested(body(nested.body()));
        }
        if (output instanceof Output.Pieces pieces) {
            return new Content.Pieces(body(pieces.body()));
        }
        Output.Turns turns = (Output.Turns) output;
        LoopPlan loop = loop(turns.loop());
        Content each = content(turns.each());
        return turns.key() == null
                ? new Content.Repeated(loop, each, turns.counted())
                : new Content.Keyed(loop, node(turns.key()), each, turns.counted());
    }

    final Body body(Emits emits) {
        List<Action> actions = new ArrayList<>();
        List<NameGuard.Statement> statements = new ArrayList<>();
        int streamedAt = -1;
        ActionCompiler compiler = new ActionCompiler(this, emits);
        for (Emit emit : emits.statements()) {
            if (OutermostLoop.isPushedBy(emit)) {
                streamedAt = actions.size();
            }
            Action action = emit.accept(compiler);
            if (action != null) {
                actions.add(action);
                statements.add(
                        new NameGuard.Statement(emit.span(), emit instanceof Emit.Copy || emit instanceof Emit.Item));
            }
        }
        return new Body(actions, statements, emits.emptied(), streamedAt, emits.guardedIn(), shared.sites());
    }
}
