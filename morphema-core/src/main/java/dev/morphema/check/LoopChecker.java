package dev.morphema.check;

import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Name;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Finds out what the names of one for clause stand for. */
final class LoopChecker implements Loop.Visitor {
    /**
     * A name of the loop at this point; a let or number is a lesser name, that a member has only
     * beside the others.
     */
    private record Named(String name, Binding binding, Type type, boolean lesser) {}

    private final Checker checker;
    private final Scope outer;
    private final @Nullable OwnFields ownFields;
    private Scope scope;
    private List<Named> names = new ArrayList<>();

    LoopChecker(Checker checker, Scope outer, @Nullable OwnFields ownFields) {
        this.checker = checker;
        this.outer = outer;
        this.ownFields = ownFields;
        this.scope = outer;
    }

    /** {@return the scope of what the loop repeats} */
    Scope check(Loop loop) {
        for (Loop.Clause clause : loop.clauses()) {
            clause.accept(this);
            checker.typing().put(loop.span(), clause.span().end(), scope);
        }
        return scope;
    }

    private ExpressionChecker expressions() {
        return new ExpressionChecker(checker, scope, ownFields);
    }

    private void declare(Name name, Binding binding, Type type, boolean lesser) {
        scope = checker.declareLocal(scope, name, new Scope.Entry(binding, type));
        names.add(new Named(name.text(), binding, type, lesser));
    }

    private int newSlot(Object node) {
        return checker.resolution().slotFor(node, scope.slots());
    }

    private List<Named> binds() {
        List<Named> binds = new ArrayList<>(names);
        binds.removeIf(Named::lesser);
        return binds;
    }

    /** {@return what a member is that holds all names of this point} */
    Resolution.Member member() {
        List<Named> binds = binds();
        boolean whole = binds.size() == 1;
        List<Resolution.LoopName> kept = new ArrayList<>();
        for (Named named : whole ? binds : names) {
            kept.add(new Resolution.LoopName(named.name(), named.binding()));
        }
        if (whole) {
            for (Named named : names) {
                if (named.lesser() && checker.mayStepTo(named.name())) {
                    kept.add(new Resolution.LoopName(named.name(), named.binding()));
                }
            }
        }
        return new Resolution.Member(whole, kept);
    }

    /** {@return what is known of such a member} */
    Type memberType() {
        List<Named> binds = binds();
        Map<String, Type> fields = new LinkedHashMap<>();
        for (Named named : names) {
            if (binds.size() != 1 || named.lesser()) {
                fields.put(named.name(), named.type());
            }
        }
        if (binds.size() != 1) {
            return Type.record(fields);
        }
        Type single = binds.get(0).type();
        Map<String, Type> ofLoop = new LinkedHashMap<>(single.names());
        fields.forEach((name, type) -> {
            if (checker.mayStepTo(name)) {
                ofLoop.put(name, type);
            }
        });
        return single.withNames(ofLoop, binds.get(0).name());
    }

    @Override
    public void bind(Loop.Bind bind) {
        Type sequence = expressions().check(bind.sequence());
        declare(bind.name(), new Binding.Local(newSlot(bind)), sequence.item(), false);
    }

    @Override
    public void where(Loop.Where where) {
        expressions().condition(where.condition());
    }

    @Override
    public void let(Loop.Let let) {
        Type type = expressions().check(let.value());
        declare(let.name(), new Binding.LocalLet(newSlot(let)), type, true);
    }

    @Override
    public void groupBy(Loop.GroupBy groupBy) {
        List<Type> keyTypes = new ArrayList<>();
        for (Loop.Key key : groupBy.keys()) {
            keyTypes.add(expressions().one(key.value(), ParameterKind.ANY));
            if (key.name() == null) {
                checker.report(key.span()
                        .error(Code.SYNTAX, "This key of the group has no name.")
                        .withHelp("write name = …"));
            }
        }
        Type members = beginGroup(groupBy);
        for (int i = 0; i < groupBy.keys().size(); i++) {
            Loop.Key key = groupBy.keys().get(i);
            int slot = newSlot(key);
            if (key.name() != null) {
                Type known = keyTypes.get(i);
                declare(
                        key.name(),
                        new Binding.Local(slot),
                        new Type(known.kind(), Cardinality.ONE, List.of(), null, known.odd()),
                        false);
            }
        }
        endGroup(groupBy, groupBy.members(), members);
    }

    @Override
    public void groupFrom(Loop.GroupFrom groupFrom) {
        expressions().condition(groupFrom.condition());
        Type members = beginGroup(groupFrom);
        endGroup(groupFrom, groupFrom.members(), members);
    }

    /** The names so far become the members; they are gone from the scope. */
    private Type beginGroup(Loop.Clause group) {
        checker.resolution().put(group, member());
        Type members = memberType().with(Cardinality.MANY);
        scope = outer;
        names = new ArrayList<>();
        return members;
    }

    private void endGroup(Loop.Clause group, Name name, Type members) {
        declare(name, new Binding.Local(newSlot(group)), members, false);
    }

    @Override
    public void sortBy(Loop.SortBy sortBy) {
        for (Loop.SortKey key : sortBy.keys()) {
            Type type = expressions().one(key.value(), ParameterKind.ANY);
            if (OperatorChecker.isNumericText(type)) {
                checker.report(key.value()
                        .span()
                        .warning(Code.TEXT_COMPARED, "This sorts as text, though the sample has only numbers here.")
                        .in(type.shown())
                        .withHelp("give the field the type number in the source, or write number(x)"));
            }
        }
    }

    @Override
    public void distinctBy(Loop.DistinctBy distinctBy) {
        distinctBy.keys().forEach(key -> expressions().one(key, ParameterKind.ANY));
    }

    @Override
    public void numbered(Loop.Numbered numbered) {
        for (Expr key : numbered.keys()) {
            expressions().key(key);
        }
        declare(numbered.name(), new Binding.Local(newSlot(numbered)), Type.of(Kind.NUMBER), true);
    }

    @Override
    public void take(Loop.Take take) {
        expressions().one(take.count(), ParameterKind.INTEGER);
    }

    @Override
    public void keyedBy(Loop.KeyedBy keyedBy) {
        expressions().one(keyedBy.key(), ParameterKind.TEXT);
    }
}
