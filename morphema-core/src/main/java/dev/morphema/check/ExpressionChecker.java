package dev.morphema.check;

import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Finds out what the expressions of one scope mean, and what is known of their values. */
final class ExpressionChecker implements Expr.Visitor<Type> {
    private static final Pattern IN_BRACES = Pattern.compile("\\{\\s*([\\p{L}_][\\p{L}\\p{N}_]*)");

    private final Checker checker;
    private final Scope scope;
    /**
     * The fields that the block at hand has given so far, for {@code .name}; null outside of
     * blocks.
     */
    private final @Nullable OwnFields ownFields;
    /** Steps of which the mapping says what to do where they lead nowhere. */
    private final Set<Expr.Step> foreseen = Collections.newSetFromMap(new IdentityHashMap<>());

    private final PathChecker paths;
    private final CallChecker calls;
    private final OperatorChecker operators;

    ExpressionChecker(Checker checker, Scope scope, @Nullable OwnFields ownFields) {
        this.checker = checker;
        this.scope = scope;
        this.ownFields = ownFields;
        this.paths = new PathChecker(checker, this);
        this.calls = new CallChecker(checker, this);
        this.operators = new OperatorChecker(checker, scope, this);
    }

    /**
     * Checks an expression of which the mapping says what to do where it has no value: that a path
     * leads nowhere is then no mistake, unless its name looks like a slip.
     */
    Type checkForeseen(Expr expr) {
        foresee(expr);
        return check(expr);
    }

    void foresee(Expr expr) {
        for (Expr at = expr; at instanceof Expr.Step step; at = step.base()) {
            foreseen.add(step);
        }
        if (expr instanceof Expr.Call call && call.arguments().size() == 1) {
            foresee(call.arguments().get(0));
        }
    }

    Type check(Expr expr) {
        Type type = expr.accept(this);
        checker.typing().put(expr, type, scope);
        return type;
    }

    /** An expression that must give one value, which is used. */
    Type one(Expr expr, ParameterKind want) {
        Type type = check(expr);
        requireOne(expr.span(), type);
        requireKind(expr.span(), type, want);
        if (want != ParameterKind.RECORD) {
            checker.needs().whole(type);
        }
        return type;
    }

    void requireOne(Span span, Type type) {
        if (type.cardinality() == Cardinality.MANY) {
            checker.report(
                    span.error(Code.ONE_OR_MANY, "Expected one value, found many.")
                            .in(type.shownSeveral())
                            .withHelp(
                                    "take one by first(…), make a text of all by join(…, \", \"), a list by [ … ], or go through them by for"));
        }
    }

    void requireKind(Span span, Type type, ParameterKind want) {
        if (type.cardinality() == Cardinality.LIST && want != ParameterKind.MANY && want != ParameterKind.ANY) {
            checker.report(span.error(Code.ONE_OR_MANY, "Expected " + want.words() + ", found a list.")
                    .in(type.shownSeveral())
                    .withHelp("take one item by first(…), or make a text of all by join(…, \", \")"));
        } else if (type.kind() != null && !want.takes(type.kind())) {
            checker.report(span.error(
                            Code.WRONG_KIND,
                            "Expected " + want.words() + ", found "
                                    + type.kind().words() + ".")
                    .in(type.shown())
                    .withHelp(want.help(type.kind())));
        } else if (type.odd() && (want == ParameterKind.NUMBER || want == ParameterKind.INTEGER)) {
            checker.report(
                    span.error(Code.WRONG_KIND, "Expected a number, found a text that is not a number.")
                            .in(type.shown())
                            .withHelp(
                                    type.places().isEmpty()
                                            ? "texts are joined in a template: \"{a} {b}\""
                                            : "the sample has texts here that are no numbers; a decimal comma needs the type number(',') in the source"));
        }
    }

    Type condition(Expr expr) {
        Type type = one(expr, ParameterKind.ANY);
        if (type.kind() != null && type.kind() != Kind.BOOLEAN) {
            checker.report(expr.span()
                    .error(
                            Code.WRONG_KIND,
                            "A condition is true or false, this is "
                                    + type.kind().words() + ".")
                    .withHelp(
                            type.kind() == Kind.TEXT
                                    ? "compare it, as in x == \"Y\", or give it the type boolean('Y', 'N')"
                                    : "compare it, as in x > 0"));
        }
        return type;
    }

    @Override
    public Type literal(Expr.Literal literal) {
        Value value = literal.value();
        if (value == Missing.NULL) {
            checker.usePrefixOfNull();
        }
        if (value.isMissing()) {
            return Type.NOTHING;
        }
        warnOfBracesInRawText(literal);
        boolean odd = value instanceof TextValue text
                && NumberValue.parse(text.text()).isEmpty();
        return new Type(value.kind(), Cardinality.ONE, List.of(), null, odd);
    }

    /**
     * Braces in a raw text stand for themselves, which is hardly meant where they hold a name that
     * is known.
     */
    private void warnOfBracesInRawText(Expr.Literal literal) {
        Matcher braces = literal.value() instanceof TextValue text ? IN_BRACES.matcher(text.text()) : null;
        while (braces != null && literal.isRaw() && braces.find()) {
            String name = braces.group(1);
            if (scope.find(name) != null || checker.globals().names().contains(name)) {
                checker.report(literal.span()
                        .warning(
                                Code.BAD_TEMPLATE,
                                "In a text in single quotes braces stand for themselves; {" + name
                                        + " is not replaced.")
                        .withHelp("in double quotes it is: \"{" + name + "}\""));
                return;
            }
        }
    }

    @Override
    public Type template(Expr.Template template) {
        template.parts().forEach(part -> one(part, ParameterKind.TEXT));
        return Type.of(Kind.TEXT);
    }

    @Override
    public Type reference(Expr.Reference reference) {
        Scope.Entry entry = scope.find(reference.name());
        if (entry == null) {
            entry = checker.globals().find(reference);
        }
        if (entry == null) {
            unknownName(reference);
            return Type.UNKNOWN;
        }
        checker.resolution().put(reference, entry.binding());
        checker.onDemand().refuse(reference, entry.binding());
        return entry.type();
    }

    private void unknownName(Expr.Reference reference) {
        Set<String> known = new LinkedHashSet<>(scope.types().keySet());
        known.addAll(checker.globals().names());
        String name = reference.name();
        if (Character.isDigit(name.charAt(0))) {
            // Reported when the text was read.
            return;
        }
        String help;
        if (ownFields != null && ownFields.find(name) != null) {
            help = "a field of this block is named with a point before it: ." + name;
        } else if (checker.functionNames().contains(name)) {
            help = name + " is a function: " + name + "(…)";
        } else {
            help = PathChecker.minusHelp(name, known);
        }
        checker.report(reference
                .span()
                .error(Code.UNKNOWN_NAME, "Nothing named " + name + " is known here.")
                .withHelp(help));
    }

    @Override
    public Type ownField(Expr.OwnField own) {
        OwnFields.Entry entry =
                ownFields == null ? null : ownFields.find(own.name().text());
        if (entry == null) {
            checker.report(unknownOwnField(own));
            return Type.UNKNOWN;
        }
        ownFields.capture(entry, scope, checker.resolution());
        checker.resolution().put(own, entry.field());
        return entry.type();
    }

    private Problem unknownOwnField(Expr.OwnField own) {
        String name = own.name().text();
        Stmt.Field elsewhere = ownFields == null ? null : ownFields.inBlock(name);
        if (elsewhere != null) {
            boolean later = elsewhere.content() instanceof Stmt.Rule;
            return own.span()
                    .error(
                            Code.UNKNOWN_NAME,
                            later
                                    ? "The field " + name + " is written further down, on line "
                                            + elsewhere.span().line() + "."
                                    : "The field " + name + " is made by a block or loop, and is written, not kept.")
                    .withHelp(
                            later
                                    ? "put that rule before this one, or give its value a name: let x = …"
                                    : "ask the source for what it is made of, or give that a name by let");
        }
        return own.span()
                .error(Code.UNKNOWN_NAME, "This block has no field " + name + " with a rule of its own further up.")
                .withHelp(
                        ownFields == null
                                ? "a path begins with a name"
                                : NearNames.proposal(name, ownFields.names()).orElse(null));
    }

    @Override
    public Type lookup(Expr.Lookup lookup) {
        if (lookup.base() instanceof Expr.Reference reference && scope.find(reference.name()) == null) {
            GlobalNames.TableEntry table = checker.globals().table(reference);
            if (table != null) {
                return tableLookup(lookup, table);
            }
        }
        Type base = check(lookup.base());
        requireOne(lookup.base().span(), base);
        checker.needs().whole(base);
        if (lookup.keys().size() > 1) {
            checker.report(lookup.span()
                    .error(Code.ARGUMENTS, "A field of a record has one name, these are several.")
                    .withHelp("only a table with several key columns takes several keys"));
        }
        if (base.cardinality() == Cardinality.LIST) {
            checker.report(lookup.span()
                    .error(Code.WRONG_KIND, "This is a list; brackets ask a table, or a record for a field.")
                    .withHelp("nth(list, n) takes an item by its position, counted from 1"));
        }
        lookup.keys().forEach(key -> one(key, ParameterKind.TEXT));
        return PathChecker.anyField(base, field -> !field.attribute() && !field.equals(FieldName.OWN_TEXT));
    }

    private Type tableLookup(Expr.Lookup lookup, GlobalNames.TableEntry table) {
        lookup.keys().forEach(key -> one(key, ParameterKind.ANY));
        if (lookup.keys().size() != table.keys()) {
            checker.report(lookup.span()
                    .error(
                            Code.ARGUMENTS,
                            "This table is looked up by " + table.keys() + (table.keys() == 1 ? " key" : " keys")
                                    + ", given are " + lookup.keys().size() + "."));
        }
        checker.resolution().put(lookup, table.index());
        return table.many() ? table.row().with(Cardinality.MANY) : table.row();
    }

    @Override
    public Type forEach(Expr.ForEach forEach) {
        LoopChecker loop = new LoopChecker(checker, scope, ownFields);
        Scope inner = loop.check(forEach.loop());
        if (forEach.loop().keyedBy() != null) {
            checker.report(forEach.loop()
                    .keyedBy()
                    .span()
                    .error(
                            Code.TARGET_FORM,
                            "keyed by makes the fields of a record; it stands in a body, not in an expression.")
                    .withHelp("write { for … keyed by … => … }"));
        }
        if (forEach.yield() != null) {
            Type type = new ExpressionChecker(checker, inner, ownFields).check(forEach.yield());
            return type.with(Cardinality.MANY);
        }
        checker.resolution().put(forEach, loop.member());
        return loop.memberType().with(Cardinality.MANY);
    }

    @Override
    public Type listOf(Expr.ListOf list) {
        Type item = Type.NOTHING;
        for (Expr expr : list.items()) {
            Type type = check(expr).item();
            item = item == Type.NOTHING ? type : item.or(type);
        }
        return item.with(Cardinality.LIST);
    }

    @Override
    public Type recordOf(Expr.RecordOf recordOf) {
        Map<String, Type> fields = new BodyChecker(checker, null).block(recordOf.block(), scope);
        return fields == null ? Type.of(Kind.RECORD) : Type.record(fields);
    }

    @Override
    public Type ifThen(Expr.If ifThen) {
        condition(ifThen.condition());
        Type then = check(ifThen.then());
        return ifThen.otherwise() == null ? then : then.or(check(ifThen.otherwise()));
    }

    /** A key of a group, number or order: one value. */
    void key(Expr expr) {
        Type type = one(expr, ParameterKind.ANY);
        if (type.cardinality() == Cardinality.LIST) {
            checker.report(expr.span()
                    .error(Code.ONE_OR_MANY, "A key is one value, this is a list.")
                    .withHelp("several keys stand side by side: by a, b"));
        }
    }

    /** {@return whether the mapping says what to do where a step leads nowhere} */
    boolean isForeseen(Expr.Step step) {
        return foreseen.contains(step);
    }

    @Override
    public Type step(Expr.Step step) {
        return paths.step(step);
    }

    @Override
    public Type call(Expr.Call call) {
        return calls.call(call);
    }

    @Override
    public Type binary(Expr.Binary binary) {
        return operators.binary(binary);
    }

    @Override
    public Type unary(Expr.Unary unary) {
        return operators.unary(unary);
    }
}
