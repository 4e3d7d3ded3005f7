package dev.morphema.plan;

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
import java.util.ArrayList;
import java.util.List;

/** Lowers what runs in one frame. */
final class UnitLowering implements Expr.Visitor<Term> {
    private final Resolution resolution;
    /**
     * How many loops and lists stand around what is lowered just now; turns of the outermost are
     * the target's records.
     */
    private int nesting;
    /** Whether there is such an outermost loop or item. */
    private boolean repeats;

    UnitLowering(Resolution resolution) {
        this.resolution = resolution;
    }

    Term term(Expr expr) {
        return expr.accept(this);
    }

    List<Term> terms(List<Expr> exprs) {
        List<Term> terms = new ArrayList<>(exprs.size());
        for (Expr expr : exprs) {
            terms.add(term(expr));
        }
        return terms;
    }

    FieldName fieldName(Name name, boolean attribute) {
        return resolution.fieldName(name, attribute);
    }

    @Override
    public Term literal(Expr.Literal literal) {
        return new Term.Constant(literal.span(), literal.value());
    }

    @Override
    public Term template(Expr.Template template) {
        return new Term.Template(template.span(), terms(template.parts()));
    }

    @Override
    public Term reference(Expr.Reference reference) {
        return named(reference.span(), resolution.binding(reference));
    }

    private static Term named(Span span, Binding binding) {
        if (binding instanceof Binding.Local local) {
            return new Term.Name(span, local.slot());
        }
        if (binding instanceof Binding.LocalLet let) {
            return new Term.Lazy(span, let.slot());
        }
        if (binding instanceof Binding.Argument argument) {
            return new Term.Argument(span, argument.slot());
        }
        if (binding instanceof Binding.Global global) {
            return new Term.Global(span, global.index());
        }
        if (binding instanceof Binding.Param param) {
            return new Term.Param(span, param.index());
        }
        if (binding instanceof Binding.Table table) {
            return new Term.Rows(span, table.index());
        }
        return new Term.Source(span, ((Binding.Source) binding).index());
    }

    @Override
    public Term ownField(Expr.OwnField own) {
        return new Term.Lazy(own.span(), resolution.slot(resolution.field(own)));
    }

    @Override
    public Term step(Expr.Step step) {
        boolean attribute = step.axis() == Expr.Axis.ATTRIBUTE;
        return new Term.Step(step.span(), term(step.base()), step.axis(), fieldName(step.name(), attribute));
    }

    @Override
    public Term lookup(Expr.Lookup lookup) {
        List<Term> keys = terms(lookup.keys());
        return resolution
                .table(lookup)
                .<Term>map(table -> new Term.Lookup(lookup.span(), table, keys))
                .orElseGet(() -> new Term.Computed(lookup.span(), term(lookup.base()), keys.get(0)));
    }

    @Override
    public Term call(Expr.Call call) {
        Resolution.Callee callee = resolution.callee(call);
        List<Term> arguments = terms(call.arguments());
        if (callee instanceof Resolution.Defined defined) {
            return new Term.Defined(call.span(), defined.index(), arguments, resolution.isVolatile(call));
        }
        Function function = ((Resolution.Builtin) callee).function();
        return function instanceof Function.Aggregate aggregate
                ? new Term.Aggregate(call.span(), aggregate, arguments)
                : new Term.Call(call.span(), (Function.Scalar) function, arguments);
    }

    @Override
    public Term forEach(Expr.ForEach forEach) {
        Pipeline loop = pipeline(forEach.loop());
        Term item =
                forEach.yield() == null ? member(forEach.span(), resolution.member(forEach)) : term(forEach.yield());
        return new Term.Each(forEach.span(), loop, item);
    }

    @Override
    public Term listOf(Expr.ListOf list) {
        return new Term.ListOf(list.span(), terms(list.items()));
    }

    @Override
    public Term recordOf(Expr.RecordOf recordOf) {
        nesting++;
        Emits body = emits(recordOf.block());
        nesting--;
        return new Term.RecordOf(recordOf.span(), body);
    }

    @Override
    public Term ifThen(Expr.If ifThen) {
        Term otherwise = ifThen.otherwise() == null
                ? new Term.Constant(ifThen.span(), Missing.ABSENT)
                : term(ifThen.otherwise());
        return new Term.Choice(ifThen.span(), term(ifThen.condition()), term(ifThen.then()), otherwise);
    }

    @Override
    public Term binary(Expr.Binary binary) {
        return new Term.Binary(binary.span(), binary.operator(), term(binary.left()), term(binary.right()));
    }

    @Override
    public Term unary(Expr.Unary unary) {
        return new Term.Unary(unary.span(), unary.negation(), term(unary.operand()));
    }

    /**
     * {@return what gives a member of a group: the value of one name, perhaps with other names as
     * more fields}
     */
    Term member(Span span, Resolution.Member member) {
        List<Term.Member.Part> parts = new ArrayList<>();
        for (Resolution.LoopName name : member.names()) {
            FieldName field = member.whole() ? FieldName.ofLoop(name.name()) : FieldName.of(name.name());
            parts.add(new Term.Member.Part(field, named(span, name.binding())));
        }
        return member.whole() && parts.size() == 1
                ? parts.get(0).value()
                : new Term.Member(span, member.whole(), parts);
    }

    Pipeline pipeline(Loop loop) {
        LoopLowering clauses = new LoopLowering(this, resolution);
        loop.clauses().forEach(clause -> clause.accept(clauses));
        return clauses.pipeline();
    }

    /**
     * {@return the loop that makes a document a turn}; loops in the document do not count its
     * records
     */
    Pipeline split(Loop loop) {
        nesting++;
        return pipeline(loop);
    }

    Output output(Stmt.Content content) {
        if (content instanceof Stmt.Rule rule) {
            return new Output.Single(term(rule.value()), null);
        }
        if (content instanceof Stmt.Nested nested) {
            return new Output.Nested(emits(nested.block()));
        }
        if (content instanceof Stmt.Repeated repeated) {
            return turns(repeated);
        }
        Stmt.Pieces pieces = (Stmt.Pieces) content;
        nesting++;
        Emits body = emits(new Block(pieces.span(), pieces.pieces()));
        nesting--;
        return new Output.Pieces(body);
    }

    private Output turns(Stmt.Repeated repeated) {
        Loop.KeyedBy keyed = repeated.loop().keyedBy();
        Pipeline loop = pipeline(repeated.loop());
        boolean counted = counted();
        nesting++;
        Output each = output(repeated.each());
        nesting--;
        return new Output.Turns(loop, keyed == null ? null : term(keyed.key()), each, counted);
    }

    boolean counted() {
        repeats |= nesting == 0;
        return nesting == 0;
    }

    /** {@return whether the target that was lowered has records: turns of an outermost loop} */
    boolean repeats() {
        return repeats;
    }

    Emits emits(Block block) {
        EmitLowering statements = new EmitLowering(this, resolution);
        List<Emit> emits = new ArrayList<>();
        block.statements().forEach(statement -> emits.add(statement.accept(statements)));
        return new Emits(
                emits, resolution.blockSlots(block), resolution.slotIfAny(block).orElse(-1));
    }
}
