package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.Resolution;
import dev.morphema.function.Function;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Compiles what runs in one frame: a target, a let of the top level, a define or a table. */
final class UnitCompiler implements Expr.Visitor<Node> {
    private final Resolution resolution;
    private final List<Program.Unit> defines;
    private final SourceTotals totals;
    private final SlotSite.Numbering sites;
    private final MemberUses memberUses;
    /** The rules of the lets and kept fields, by slot; each is compiled when its first use is. */
    private final Map<Integer, Supplier<Node>> lazies = new HashMap<>();

    private final List<Node> foundByKey = new ArrayList<>();
    /** The loops through which records go as they come: of a source, or the members of a group. */
    private final Set<Loop> streamed = Collections.newSetFromMap(new IdentityHashMap<>());
    /**
     * How many loops and lists stand around the one at hand; turns of the outermost are the
     * target's records.
     */
    private int nesting;
    /** Whether there is such an outermost loop or item. */
    private boolean repeats;

    UnitCompiler(Resolution resolution, List<Program.Unit> defines, SourceTotals totals, SlotSite.Numbering sites) {
        this.resolution = resolution;
        this.defines = defines;
        this.totals = totals;
        this.sites = sites;
        this.memberUses = new MemberUses(resolution);
    }

    /** All that runs in the frame is compiled. */
    void complete() {
        memberUses.complete();
    }

    /** A loop whose records are pushed through. */
    void stream(Loop loop) {
        streamed.add(loop);
    }

    /**
     * The members of the groups that a loop makes may go on one at a time to a loop in what is
     * written for each.
     */
    void passMembers(Loop loop, @Nullable Expr name, Stmt.Content each) {
        Loop over = new PassedMembers(resolution).loopOver(loop, name, each);
        if (over != null) {
            streamed.add(over);
        }
    }

    /** A loop finds what it wants of a sequence by keys. */
    void findsByKey(Node sequence) {
        foundByKey.add(sequence);
    }

    /** {@return the sequences in which loops find what they want by keys} */
    List<Node> foundByKey() {
        return foundByKey;
    }

    Node node(Expr expr) {
        return expr.accept(this);
    }

    Stages.Keys keys(List<Expr> exprs) {
        return keysOf(nodes(exprs));
    }

    Stages.Keys keysOf(List<Node> nodes) {
        return new Stages.Keys(nodes, sites);
    }

    List<Node> nodes(List<Expr> exprs) {
        List<Node> nodes = new ArrayList<>(exprs.size());
        for (Expr expr : exprs) {
            nodes.add(node(expr));
        }
        return nodes;
    }

    @Override
    public Node literal(Expr.Literal literal) {
        return new NameNodes.Constant(literal.span(), literal.value());
    }

    @Override
    public Node template(Expr.Template template) {
        return new ValueNodes.Template(template.span(), nodes(template.parts()));
    }

    @Override
    public Node reference(Expr.Reference reference) {
        return named(reference.span(), resolution.binding(reference));
    }

    private Node named(Span span, Binding binding) {
        if (binding instanceof Binding.Local local) {
            memberUses.valueOf(local.slot());
            return new NameNodes.Local(span, local.slot());
        }
        if (binding instanceof Binding.LocalLet let) {
            return lazy(span, let.slot());
        }
        if (binding instanceof Binding.Argument argument) {
            return new NameNodes.Argument(span, argument.slot());
        }
        if (binding instanceof Binding.Global global) {
            return new NameNodes.Global(span, global.index());
        }
        if (binding instanceof Binding.Param param) {
            return new NameNodes.Param(span, param.index());
        }
        if (binding instanceof Binding.Table table) {
            return new NameNodes.TableRows(span, table.index());
        }
        return new NameNodes.Source(span, ((Binding.Source) binding).index());
    }

    @Override
    public Node ownField(Expr.OwnField own) {
        return lazy(own.span(), resolution.slot(resolution.field(own)));
    }

    @Override
    public Node step(Expr.Step step) {
        Node base = node(step.base());
        return switch (step.axis()) {
            case FIELD -> new PathNodes.Named(step.span(), base, fieldName(step.name(), false), sites);
            case ATTRIBUTE -> new PathNodes.Named(step.span(), base, fieldName(step.name(), true), sites);
            case ANY_FIELD -> new PathNodes.Any(step.span(), base, false);
            case ANY_ATTRIBUTE -> new PathNodes.Any(step.span(), base, true);
            case DEEP -> new PathNodes.Deep(step.span(), base, fieldName(step.name(), false));
        };
    }

    FieldName fieldName(Name name, boolean attribute) {
        return resolution.fieldName(name, attribute);
    }

    @Override
    public Node lookup(Expr.Lookup lookup) {
        List<Node> keys = nodes(lookup.keys());
        return resolution
                .table(lookup)
                .<Node>map(table -> new PathNodes.TableLookup(lookup.span(), table, keys))
                .orElseGet(() -> new PathNodes.Computed(lookup.span(), node(lookup.base()), keys.get(0)));
    }

    @Override
    public Node call(Expr.Call call) {
        Resolution.Callee callee = resolution.callee(call);
        if (callee instanceof Resolution.Builtin builtin
                && builtin.function() instanceof Function.Aggregate aggregate) {
            return aggregate(call, aggregate);
        }
        List<Node> arguments = nodes(call.arguments());
        if (callee instanceof Resolution.Defined defined) {
            return new CallNodes.Defined(call.span(), defines.get(defined.index()), arguments);
        }
        Function.Scalar scalar = (Function.Scalar) ((Resolution.Builtin) callee).function();
        List<@Nullable Value> constants = new ArrayList<>();
        for (Expr argument : call.arguments()) {
            constants.add(argument instanceof Expr.Literal literal ? literal.value() : null);
        }
        return new CallNodes.Scalar(
                call.span(), scalar, arguments, scalar.maker().make(constants));
    }

    private Node aggregate(Expr.Call call, Function.Aggregate function) {
        GroupUse use = memberUses.takenByFunction(call);
        if (use == null) {
            List<Node> arguments = MemberUses.wantsOnlyFirst(call, function)
                    ? List.of(forEach((Expr.ForEach) call.arguments().get(0), true))
                    : nodes(call.arguments());
            CallNodes.Aggregate aggregate = new CallNodes.Aggregate(call.span(), function, arguments);
            return isInvariant(call) ? new NameNodes.Once(totals.of(call, aggregate)) : aggregate;
        }
        // Its own use of the name is no reason to keep the members.
        List<Node> arguments = memberUses.without(use, () -> nodes(call.arguments()));
        return new CallNodes.Running(new CallNodes.Aggregate(call.span(), function, arguments), use);
    }

    @Override
    public Node forEach(Expr.ForEach forEach) {
        return forEach(forEach, false);
    }

    private Node forEach(Expr.ForEach forEach, boolean onlyFirst) {
        GroupUse use = memberUses.takenInOrder(forEach.loop(), onlyFirst);
        LoopCompiler clauses = clauses(forEach.loop(), use);
        Node yield =
                forEach.yield() == null ? member(forEach.span(), resolution.member(forEach)) : node(forEach.yield());
        if (onlyFirst) {
            clauses.wantOnlyFirst(yield);
        }
        return new ValueNodes.ForEach(forEach.span(), plan(forEach.loop(), clauses, use), yield);
    }

    @Override
    public Node listOf(Expr.ListOf list) {
        return new ValueNodes.ListOf(list.span(), nodes(list.items()));
    }

    @Override
    public Node recordOf(Expr.RecordOf recordOf) {
        nesting++;
        Body body = body(recordOf.block());
        nesting--;
        return new ValueNodes.RecordOf(recordOf.span(), body);
    }

    @Override
    public Node ifThen(Expr.If ifThen) {
        Node otherwise = ifThen.otherwise() == null
                ? new NameNodes.Constant(ifThen.span(), Missing.ABSENT)
                : node(ifThen.otherwise());
        return new OperatorNodes.Choice(ifThen.span(), node(ifThen.condition()), node(ifThen.then()), otherwise);
    }

    @Override
    public Node binary(Expr.Binary binary) {
        Node left = node(binary.left());
        Node right = node(binary.right());
        Span span = binary.span();
        return switch (binary.operator()) {
            case OR -> new OperatorNodes.Logic(span, true, left, right);
            case AND -> new OperatorNodes.Logic(span, false, left, right);
            case EQUAL, NOT_EQUAL, LESS, AT_MOST, MORE, AT_LEAST ->
                new OperatorNodes.Compared(span, binary.operator(), left, right);
            case IN, NOT_IN ->
                new OperatorNodes.In(
                        span, binary.operator() == Expr.Operator.IN, left, right, isInvariant(binary.right()));
            case COALESCE -> new OperatorNodes.Coalesce(span, left, right);
            case PLUS, MINUS, TIMES, DIVIDE, REMAINDER ->
                new OperatorNodes.Arithmetic(span, binary.operator(), left, right);
        };
    }

    /** Whether an expression gives the same all through a run. */
    boolean isInvariant(Expr expr) {
        return new InvariantCheck(resolution).isInvariant(expr);
    }

    @Override
    public Node unary(Expr.Unary unary) {
        Node operand = node(unary.operand());
        return unary.negation()
                ? new OperatorNodes.Not(unary.span(), operand)
                : new OperatorNodes.Negated(unary.span(), operand);
    }

    /**
     * {@return what gives a member of a group: the value of one name, perhaps with other names as
     * more fields}
     */
    Node member(Span span, Resolution.Member member) {
        List<MemberNode.Part> parts = new ArrayList<>();
        for (Resolution.LoopName name : member.names()) {
            FieldName field = member.whole() ? FieldName.ofLoop(name.name()) : FieldName.of(name.name());
            parts.add(new MemberNode.Part(field, named(span, name.binding())));
        }
        return member.whole() && parts.size() == 1 ? parts.get(0).value() : new MemberNode(span, member.whole(), parts);
    }

    LoopPlan loop(Loop loop) {
        return plan(loop, clauses(loop, null), null);
    }

    /**
     * A loop of a body; one that groups or sorts the members of a group around it may do so while
     * they come.
     */
    private LoopPlan bodyLoop(Loop loop) {
        GroupUse passing = streamed.contains(loop) ? memberUses.goneThroughBy(loop) : null;
        if (passing != null) {
            LoopPlan plan = plan(loop, clauses(loop, passing), null);
            passing.passTo(plan);
            return plan;
        }
        GroupUse use = memberUses.takenByLoop(loop);
        return plan(loop, clauses(loop, use), use);
    }

    /** @param use of the members that the loop takes one at a time; null if it does not */
    private LoopCompiler clauses(Loop loop, @Nullable GroupUse use) {
        LoopCompiler clauses = new LoopCompiler(this, resolution, memberUses);
        for (Loop.Clause clause : loop.clauses()) {
            if (clause == loop.first() && use != null) {
                memberUses.without(use, () -> {
                    clause.accept(clauses);
                    return clauses;
                });
            } else {
                clause.accept(clauses);
            }
        }
        return clauses;
    }

    private LoopPlan plan(Loop loop, LoopCompiler clauses, @Nullable GroupUse use) {
        Loop.Bind first = loop.first();
        LoopPlan plan = new LoopPlan(
                clauses.sequence(),
                resolution.slot(first),
                first.optional(),
                clauses.stages(),
                clauses.names(),
                use == null ? null : new LoopPlan.OverMembers(use, use.nextNested(), clauses.holding()));
        if (use != null) {
            use.add(plan);
        }
        return plan;
    }

    private Node lazy(Span span, int slot) {
        Node rule = Objects.requireNonNull(lazies.get(slot)).get();
        lazies.put(slot, () -> rule);
        return new NameNodes.Lazy(span, slot, rule);
    }

    /** The value in a slot is calculated by a rule. */
    void lazy(int slot, Supplier<Node> rule) {
        lazies.put(slot, rule);
    }

    /**
     * {@return the loop that makes a document a turn}; loops in the document do not count its
     * records
     */
    LoopPlan split(Loop loop) {
        nesting++;
        return loop(loop);
    }

    /** {@return the whole document of a target} */
    Content document(Block block, boolean list) {
        return list ? new Content.Pieces(body(block)) : new Content.Nested(body(block));
    }

    Content content(Stmt.Content content) {
        if (content instanceof Stmt.Rule rule) {
            return new Content.Rule(node(rule.value()), null);
        }
        if (content instanceof Stmt.Nested nested) {
            return new Content.Nested(body(nested.block()));
        }
        if (content instanceof Stmt.Repeated repeated) {
            return repeated(repeated);
        }
        Stmt.Pieces pieces = (Stmt.Pieces) content;
        nesting++;
        Body body = body(new Block(pieces.span(), pieces.pieces()));
        nesting--;
        return new Content.Pieces(body);
    }

    boolean counted() {
        repeats |= nesting == 0;
        return nesting == 0;
    }

    /** {@return whether the target that was compiled has records: turns of an outermost loop} */
    boolean repeats() {
        return repeats;
    }

    private Content repeated(Stmt.Repeated repeated) {
        Loop.KeyedBy keyed = repeated.loop().keyedBy();
        passMembers(repeated.loop(), keyed == null ? null : keyed.key(), repeated.each());
        LoopPlan loop = bodyLoop(repeated.loop());
        boolean counted = counted();
        nesting++;
        Content each = content(repeated.each());
        nesting--;
        return keyed == null
                ? new Content.Repeated(loop, each, counted)
                : new Content.Keyed(loop, node(keyed.key()), each, counted);
    }

    Body body(Block block) {
        List<Action> actions = new ArrayList<>();
        List<NameGuard.Statement> statements = new ArrayList<>();
        int streamedAt = -1;
        ActionCompiler compiler = new ActionCompiler(this, resolution, block);
        block.statements().forEach(compiler::prepare);
        for (Stmt statement : block.statements()) {
            if (streamed.stream().anyMatch(loop -> StreamFinder.leadsTo(statement, loop))) {
                streamedAt = actions.size();
            }
            Action action = statement.accept(compiler);
            if (action != null) {
                actions.add(action);
                statements.add(new NameGuard.Statement(
                        placeOf(statement), statement instanceof Stmt.Copy || statement instanceof Stmt.Item));
            }
        }
        int guardedIn = resolution.slotIfAny(block).orElse(-1);
        return new Body(actions, statements, resolution.blockSlots(block), streamedAt, guardedIn, sites);
    }

    private static Span placeOf(Stmt statement) {
        return statement instanceof Stmt.Field field ? field.name().span() : statement.span();
    }
}
