package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.function.Signature;
import dev.morphema.function.Trait;
import dev.morphema.function.Want;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Finds out what the expressions of one scope mean, and what is known of their values. */
final class ExpressionChecker implements Expr.Visitor<Type> {
    private static final Pattern IN_BRACES = Pattern.compile("\\{\\s*([\\p{L}_][\\p{L}\\p{N}_]*)");

    private final Checker checker;
    private final Scope scope;
    /** The fields that the block at hand has given so far, for {@code .name}; null outside of blocks. */
    private final @Nullable OwnFields ownFields;
    /** Steps of which the mapping says what to do where they lead nowhere. */
    private final Set<Expr.Step> foreseen = Collections.newSetFromMap(new IdentityHashMap<>());

    ExpressionChecker(Checker checker, Scope scope, @Nullable OwnFields ownFields) {
        this.checker = checker;
        this.scope = scope;
        this.ownFields = ownFields;
    }

    /**
     * Checks an expression of which the mapping says what to do where it has no value: that a path leads nowhere is then no mistake,
     * unless its name looks like a slip.
     */
    Type checkForeseen(Expr expr) {
        foresee(expr);
        return check(expr);
    }

    private void foresee(Expr expr) {
        for (Expr at = expr; at instanceof Expr.Step step; at = step.base()) {
            foreseen.add(step);
        }
        if (expr instanceof Expr.Call call && call.arguments().size() == 1) {
            foresee(call.arguments().get(0));
        }
    }

    Type check(Expr expr) {
        Type type = expr.accept(this);
        checker.remember(expr, type);
        return type;
    }

    /** An expression that must give one value, which is used. */
    Type one(Expr expr, Want want) {
        Type type = check(expr);
        requireOne(expr.span(), type);
        requireKind(expr.span(), type, want);
        if (want != Want.RECORD) {
            type.consume();
        }
        return type;
    }

    void requireOne(Span span, Type type) {
        if (type.card() == Card.MANY) {
            checker.report(
                    span.error(Code.ONE_OR_MANY, "Expected one value, found many.")
                            .withHelp(
                                    "take one by first(…), make a text of all by join(…, \", \"), a list by [ … ], or go through them by for"));
        }
    }

    private void requireKind(Span span, Type type, Want want) {
        if (type.card() == Card.LIST && want != Want.MANY && want != Want.ANY) {
            checker.report(span.error(Code.ONE_OR_MANY, "Expected " + want.words() + ", found a list.")
                    .withHelp("take one item by first(…), or make a text of all by join(…, \", \")"));
        } else if (type.kind() != null && !want.takes(type.kind())) {
            checker.report(span.error(
                            Code.WRONG_KIND,
                            "Expected " + want.words() + ", found "
                                    + type.kind().words() + ".")
                    .withHelp(want.help(type.kind())));
        } else if (type.odd() && (want == Want.NUMBER || want == Want.INTEGER)) {
            checker.report(
                    span.error(Code.WRONG_KIND, "Expected a number, found a text that is not a number.")
                            .withHelp(
                                    type.paths().isEmpty()
                                            ? "texts are joined in a template: \"{a} {b}\""
                                            : "the sample has texts here that are no numbers; a decimal comma needs the type number(',') in the source"));
        }
    }

    Type condition(Expr expr) {
        Type type = one(expr, Want.ANY);
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
        if (value == Nothing.NULL) {
            checker.usePrefixOfNull();
        }
        if (value.isNothing()) {
            return Type.NOTHING;
        }
        warnOfBracesInRawText(literal);
        boolean odd = value instanceof TextValue text
                && NumberValue.parse(text.text()).isEmpty();
        return new Type(value.kind(), Card.ONE, List.of(), null, odd);
    }

    /** Braces in a raw text stand for themselves, which is hardly meant where they hold a name that is known. */
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
        template.parts().forEach(part -> one(part, Want.TEXT));
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
        return entry.type();
    }

    private void unknownName(Expr.Reference reference) {
        Set<String> known = scope.all();
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
            help = minusHelp(name, known);
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
    public Type step(Expr.Step step) {
        Type base = check(step.base());
        switch (step.axis()) {
            case FIELD, ATTRIBUTE -> {
                checker.resolution().putStep(step);
                Type ofLoop = step.axis() == Expr.Axis.FIELD && step.name().prefix() == null
                        ? base.names().get(step.name().text())
                        : null;
                if (ofLoop != null) {
                    return overAll(base, ofLoop);
                }
                FieldName name = checker.fieldName(step.name(), step.axis() == Expr.Axis.ATTRIBUTE, base.paths());
                return overAll(base, field(base, name, step));
            }
            case ANY_FIELD, ANY_ATTRIBUTE, DEEP -> {
                base.consume();
                return foundBy(step, base).with(Card.MANY);
            }
        }
        throw new IllegalStateException("no such axis");
    }

    /** {@return what is known of each value that a step leads to, whatever the name or the depth is} */
    private Type foundBy(Expr.Step step, Type base) {
        if (step.axis() != Expr.Axis.DEEP) {
            boolean attributes = step.axis() == Expr.Axis.ANY_ATTRIBUTE;
            return anyField(base, field -> field.attribute() == attributes && !field.equals(FieldName.OWN_TEXT));
        }
        FieldName name = checker.fieldName(step.name(), false);
        warnIfNowhere(base, name, step.name());
        boolean shown = base.paths().stream().allMatch(node -> node.shape() != null);
        return shown && base.fields() == null
                ? Type.anyOf(base.paths().stream()
                        .flatMap(node -> node.below(name).stream())
                        .map(ExpressionChecker::typeOf)
                        .toList())
                : Type.UNKNOWN;
    }

    /** {@return what is known of a field of a record of which only the run tells the name} */
    private static Type anyField(Type base, Predicate<FieldName> wanted) {
        List<Type> types = new ArrayList<>();
        if (base.fields() != null) {
            types.addAll(base.fields().values());
        }
        for (PathNode node : base.paths()) {
            if (node.shape() == null) {
                return Type.UNKNOWN;
            }
            node.children(wanted).forEach(child -> types.add(typeOf(child)));
        }
        return Type.anyOf(types);
    }

    private void warnIfNowhere(Type base, FieldName name, Name written) {
        Set<String> known = new TreeSet<>();
        boolean nowhere = !base.paths().isEmpty();
        for (PathNode node : base.paths()) {
            nowhere &= node.shape() != null && node.shape().below(name).isEmpty();
            if (nowhere) {
                node.shape().addNamesBelow(known);
            }
        }
        if (nowhere) {
            checker.report(written.span()
                    .warning(Code.UNKNOWN_FIELD, "The sample has no field " + name + " at any depth here.")
                    .withHelp(NearNames.proposal(name.toString(), known).orElse(null)));
        }
    }

    /** What a step gives that goes over one or many. */
    private static Type overAll(Type base, Type field) {
        return switch (base.card()) {
            case MANY, LIST -> field.with(Card.MANY);
            case UNKNOWN -> field.card() == Card.ONE ? field.with(Card.UNKNOWN) : field;
            case ONE -> field;
        };
    }

    private Type field(Type base, FieldName name, Expr.Step step) {
        Name written = step.name();
        Type known = base.fields() == null ? null : base.fields().get(name.toString());
        if (known != null) {
            return known;
        }
        if (!base.paths().isEmpty()) {
            return fieldOfPaths(base, name, step);
        }
        if (base.fields() != null) {
            checker.report(written.span()
                    .error(Code.UNKNOWN_FIELD, "There is no field " + name + " here.")
                    .withHelp(NearNames.proposal(name.toString(), base.fields().keySet())
                            .orElse(null)));
        } else if (base.kind() != null && base.kind() != Kind.RECORD) {
            checker.report(written.span()
                    .error(Code.UNKNOWN_FIELD, "This is " + base.kind().words() + ", which has no fields."));
        }
        return Type.UNKNOWN;
    }

    private Type fieldOfPaths(Type base, FieldName name, Expr.Step step) {
        Name written = step.name();
        boolean isForeseen = foreseen.contains(step);
        Type type = null;
        if (isLoopItself(base, name, step)) {
            return Type.UNKNOWN;
        }
        boolean missing = true;
        boolean scalar = true;
        Set<String> known = new TreeSet<>();
        boolean flat = false;
        for (PathNode node : base.paths()) {
            PathNode child = node.child(name);
            child.step();
            if (isForeseen) {
                child.foresee();
            }
            Type of = typeOf(child);
            type = type == null ? of : type.or(of);
            Shape shape = node.shape();
            warnIfAmbiguous(shape, name, written);
            missing &= shape != null && shape.lacks(name);
            scalar &= shape != null && shape.isScalar();
            flat |= node.isFlat();
            if (shape != null) {
                shape.names().forEach(n -> known.add(n.toString()));
            }
            known.addAll(base.names().keySet());
        }
        if (missing && !(isForeseen && NearNames.near(name.local(), known).isEmpty())) {
            String message = scalar
                    ? "The sample has a single value here, and no field " + name + " in it."
                    : "The sample has no field " + name + " here.";
            Problem problem = (flat
                            ? written.span().error(Code.UNKNOWN_FIELD, message)
                            : written.span().warning(Code.UNKNOWN_FIELD, message))
                    .withHelp(minusHelp(name.local(), known));
            checker.reportMissing(base.paths(), name, problem);
        }
        return Objects.requireNonNull(type);
    }

    /** Whether a member of a group is asked for the name of its loop, though it is what that name stood for. */
    private boolean isLoopItself(Type base, FieldName name, Expr.Step step) {
        boolean known = base.paths().stream()
                .anyMatch(node -> node.shape() != null && !node.shape().lacks(name));
        if (!name.local().equals(base.loopName()) || name.attribute() || known) {
            return false;
        }
        checker.report(step.name()
                .span()
                .error(
                        Code.UNKNOWN_FIELD,
                        "A member of the group is what " + name.local() + " was, and has no field of that name.")
                .withHelp("leave the step out: m.x, not m." + name.local() + ".x"));
        return true;
    }

    /** A step without prefix takes all elements of its name, which may be of different kinds. */
    private void warnIfAmbiguous(@Nullable Shape shape, FieldName name, Name written) {
        List<FieldName> meant = shape == null ? List.of() : shape.meant(name);
        if (meant.size() > 1) {
            List<String> namespaces = meant.stream()
                    .map(field -> field.namespace() == null ? "none" : field.namespace())
                    .toList();
            checker.report(written.span()
                    .warning(
                            Code.AMBIGUOUS_NAME,
                            "The sample has elements " + name + " in several namespaces here, and this means all.")
                    .withHelp("a prefix means one of them; the namespaces are " + String.join(", ", namespaces)));
        }
    }

    /** What may have been meant by a name that is not known, perhaps a subtraction. */
    private static @Nullable String minusHelp(String name, Set<String> known) {
        int minus = name.indexOf('-');
        return minus > 0 && known.contains(name.substring(0, minus))
                ? "a minus wants blanks around it: " + name.substring(0, minus) + " - " + name.substring(minus + 1)
                : NearNames.proposal(name, known).orElse(null);
    }

    /** What is known of the value at a place in a source. */
    static Type typeOf(PathNode node) {
        Shape shape = node.shape();
        Card card = node.isFlat() ? Card.ONE : Card.UNKNOWN;
        if (shape != null && shape.isMany()) {
            card = Card.MANY;
        } else if (shape != null && shape.isList()) {
            card = Card.LIST;
        }
        if (node.declared() != null) {
            return new Type(node.declared().kind(), card, List.of(node), null, false);
        }
        Kind kind = node.isFlat() ? Kind.TEXT : null;
        if (shape != null && kind == null && shape.kind() != null) {
            kind = shape.kind();
        }
        boolean odd = kind == Kind.TEXT && shape != null && shape.hasOddText();
        return new Type(kind, card, List.of(node), null, odd);
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
        base.consume();
        if (lookup.keys().size() > 1) {
            checker.report(lookup.span()
                    .error(Code.ARGUMENTS, "A field of a record has one name, these are several.")
                    .withHelp("only a table with several key columns takes several keys"));
        }
        if (base.card() == Card.LIST) {
            checker.report(lookup.span()
                    .error(Code.WRONG_KIND, "This is a list; brackets ask a table, or a record for a field.")
                    .withHelp("nth(list, n) takes an item by its position, counted from 1"));
        }
        lookup.keys().forEach(key -> one(key, Want.TEXT));
        return anyField(base, field -> !field.attribute() && !field.equals(FieldName.OWN_TEXT));
    }

    private Type tableLookup(Expr.Lookup lookup, GlobalNames.TableEntry table) {
        lookup.keys().forEach(key -> one(key, Want.ANY));
        if (lookup.keys().size() != table.keys()) {
            checker.report(lookup.span()
                    .error(
                            Code.ARGUMENTS,
                            "This table is looked up by " + table.keys() + (table.keys() == 1 ? " key" : " keys")
                                    + ", given are " + lookup.keys().size() + "."));
        }
        checker.resolution().put(lookup, table.index());
        return table.many() ? table.row().with(Card.MANY) : table.row();
    }

    @Override
    public Type call(Expr.Call call) {
        Optional<Integer> define = checker.defines().find(call.name());
        if (define.isPresent()) {
            return defined(call, define.get());
        }
        Function function = checker.function(call.name());
        if (function == null) {
            call.arguments().forEach(this::check);
            checker.report(call.nameSpan()
                    .error(Code.UNKNOWN_FUNCTION, "There is no function " + call.name() + ".")
                    .withHelp(OtherNames.proposal(call.name())
                            .or(() -> NearNames.near(call.name(), checker.functionNames())
                                            .isEmpty()
                                    ? Optional.of("the functions are listed in the reference of functions")
                                    : NearNames.proposal(call.name(), checker.functionNames()))
                            .orElse(null)));
            return Type.UNKNOWN;
        }
        resolve(call, new Resolution.Builtin(function));
        Signature signature = function.signature();
        int given = call.arguments().size();
        if (given < signature.least() || given > signature.most()) {
            call.arguments().forEach(this::check);
            checker.report(call.span()
                    .error(
                            Code.ARGUMENTS,
                            call.name() + " takes " + counted(signature) + ", given "
                                    + (given == 1 ? "is 1." : "are " + given + "."))
                    .withHelp(signature.text()));
            return Type.of(signature.result());
        }
        if (function.traits().has(Trait.ASKS_PRESENCE)) {
            call.arguments().forEach(this::foresee);
        }
        warnOfPattern(call, function);
        Problem fault = ConstantArguments.fault(function, call.arguments());
        if (fault != null) {
            checker.report(fault.at(call.span().location()));
        }
        return function instanceof Function.Aggregate aggregate
                ? aggregate(call, aggregate)
                : scalar(call, (Function.Scalar) function);
    }

    private void warnOfPattern(Expr.Call call, Function function) {
        for (int i = 0; i < call.arguments().size(); i++) {
            if (function.signature().parameter(i).name().equals(Signature.PATTERN)
                    && call.arguments().get(i) instanceof Expr.Literal literal
                    && literal.value() instanceof TextValue pattern) {
                Problem slip = PatternSlips.in(pattern.text(), literal.span());
                if (slip != null) {
                    checker.report(slip);
                }
            }
        }
    }

    private static String counted(Signature signature) {
        String least = signature.least() == 1 ? "1 argument" : signature.least() + " arguments";
        if (signature.most() == Integer.MAX_VALUE) {
            return "at least " + least;
        }
        return signature.least() == signature.most()
                ? least
                : signature.least() + " to " + signature.most() + " arguments";
    }

    private void resolve(Expr.Call call, Resolution.Callee callee) {
        checker.resolution().put(call, callee);
        checker.defines().addCall(callee);
    }

    private Type defined(Expr.Call call, int define) {
        resolve(call, new Resolution.Defined(define));
        List<Type> arguments = call.arguments().stream().map(this::check).toList();
        int wanted = checker.defines().parameters(define);
        if (call.arguments().size() != wanted) {
            checker.report(call.span()
                    .error(
                            Code.ARGUMENTS,
                            call.name() + " is defined with " + wanted + (wanted == 1 ? " argument" : " arguments")
                                    + ", given "
                                    + (call.arguments().size() == 1
                                            ? "is 1."
                                            : "are " + call.arguments().size() + ".")));
        }
        return checker.defines().result(call, define, arguments);
    }

    private Type scalar(Expr.Call call, Function.Scalar function) {
        List<@Nullable Value> constants = new ArrayList<>();
        Type first = Type.UNKNOWN;
        for (int i = 0; i < call.arguments().size(); i++) {
            Expr argument = call.arguments().get(i);
            Type type = one(argument, function.signature().parameter(i).want());
            first = i == 0 ? type : first;
            constants.add(argument instanceof Expr.Literal literal ? literal.value() : null);
        }
        try {
            function.maker().make(constants);
        } catch (IllegalArgumentException e) {
            checker.report(call.span().error(Code.ARGUMENTS, String.valueOf(e.getMessage())));
        }
        if (function.traits().has(Trait.UNFINISHED)) {
            checker.report(call.span().warning(Code.TODO, "This rule is not written yet."));
        }
        if (function.traits().has(Trait.FORM_OF_FIRST)) {
            return first;
        }
        if (function.traits().has(Trait.GIVES_NOTHING)) {
            return Type.NOTHING;
        }
        if (function.traits().has(Trait.VALUES_OF_FIRST)) {
            return anyField(first, field -> true).with(Card.LIST);
        }
        if (function.traits().has(Trait.ENTRIES_OF_FIRST)) {
            return Type.record(Map.of("key", Type.of(Kind.TEXT), "value", anyField(first, field -> true)))
                    .with(Card.LIST);
        }
        Kind result = function.signature().result();
        Card card = result == Kind.LIST ? Card.LIST : Card.ONE;
        return new Type(result == Kind.LIST ? null : result, card, List.of(), null, false);
    }

    private Type aggregate(Expr.Call call, Function.Aggregate function) {
        Type items = check(call.arguments().get(0));
        if (function.traits().has(Trait.READS_ITEMS)) {
            items.consume();
        }
        for (int i = 1; i < call.arguments().size(); i++) {
            one(call.arguments().get(i), function.signature().parameter(i).want());
        }
        if (function.traits().has(Trait.NUMERIC_ITEMS)) {
            requireKind(call.arguments().get(0).span(), items.with(Card.ONE), Want.NUMBER);
        }
        boolean orders = function.traits().has(Trait.ORDERS_ITEMS);
        if (orders && call.arguments().get(0) instanceof Expr.ListOf list) {
            refuseMixed(list);
        }
        if (orders && isNumericText(items)) {
            checker.report(call.span()
                    .warning(Code.TEXT_COMPARED, "This compares texts, though the sample has only numbers here.")
                    .withHelp("give the field the type number in the source"));
        }
        Kind result = function.signature().result();
        if (function.traits().has(Trait.FORM_OF_FIRST)) {
            return items.with(result == Kind.LIST ? Card.LIST : Card.ONE);
        }
        return Type.of(result);
    }

    /** Values of several kinds have no order. */
    private void refuseMixed(Expr.ListOf list) {
        Kind first = null;
        for (Expr item : list.items()) {
            Kind kind = checker.typeOf(item).kind();
            if (first != null && kind != null && kind != first) {
                checker.report(item.span()
                        .error(
                                Code.WRONG_KIND,
                                "Values of unlike kinds have no order: " + first.words() + " and " + kind.words() + ".")
                        .withHelp("number(x) makes a number of a text, text(x) a text of a number"));
                return;
            }
            first = first == null ? kind : first;
        }
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
            return type.with(Card.MANY);
        }
        checker.resolution().put(forEach, loop.member());
        return loop.memberType().with(Card.MANY);
    }

    @Override
    public Type listOf(Expr.ListOf list) {
        Type item = Type.NOTHING;
        for (Expr expr : list.items()) {
            Type type = check(expr).item();
            item = item == Type.NOTHING ? type : item.or(type);
        }
        return item.with(Card.LIST);
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

    @Override
    public Type binary(Expr.Binary binary) {
        switch (binary.operator()) {
            case OR, AND -> {
                condition(binary.left());
                condition(binary.right());
                return Type.of(Kind.BOOLEAN);
            }
            case EQUAL, NOT_EQUAL, LESS, AT_MOST, MORE, AT_LEAST -> {
                return comparison(binary);
            }
            case IN, NOT_IN -> {
                one(binary.left(), Want.ANY);
                check(binary.right()).consume();
                return Type.of(Kind.BOOLEAN);
            }
            case COALESCE -> {
                Type left = checkForeseen(binary.left());
                return left.or(check(binary.right()));
            }
            case PLUS, MINUS, TIMES, DIVIDE, REMAINDER -> {
                if (binary.operator() == Expr.Operator.DIVIDE && isPathWithSlashes(binary)) {
                    return Type.UNKNOWN;
                }
                if (binary.operator() == Expr.Operator.PLUS && addsTexts(binary)) {
                    return Type.of(Kind.NUMBER);
                }
                one(binary.left(), Want.NUMBER);
                one(binary.right(), Want.NUMBER);
                return Type.of(Kind.NUMBER);
            }
        }
        throw new IllegalStateException("no such operator");
    }

    /** Whether a path is written as in a file system, which is reported once: its last step is no known name. */
    private boolean isPathWithSlashes(Expr.Binary binary) {
        Expr start = binary.left();
        String path = "." + binary.right().span().text();
        while (start instanceof Expr.Binary inner && inner.operator() == Expr.Operator.DIVIDE) {
            path = "." + inner.right().span().text() + path;
            start = inner.left();
        }
        boolean names = binary.right() instanceof Expr.Reference right && !isKnown(right);
        boolean fromPath = start instanceof Expr.Step || start instanceof Expr.Reference left && isKnown(left);
        if (names && fromPath) {
            check(start);
            checker.report(binary.span()
                    .error(Code.UNKNOWN_NAME, "Steps of a path are joined by points; a slash divides numbers.")
                    .withHelp("write " + start.span().text() + path));
        }
        return names && fromPath;
    }

    private boolean isKnown(Expr.Reference reference) {
        return scope.find(reference.name()) != null || checker.globals().names().contains(reference.name());
    }

    /** Whether a + would join texts, which is reported: it only adds. */
    private boolean addsTexts(Expr.Binary binary) {
        boolean texts = false;
        boolean reported = false;
        for (Expr side : List.of(binary.left(), binary.right())) {
            if (side instanceof Expr.Binary inner && inner.operator() == Expr.Operator.PLUS) {
                reported |= addsTexts(inner);
            } else {
                texts |= one(side, Want.ANY).odd();
            }
        }
        if (texts && !reported) {
            checker.report(
                    binary.operatorSpan()
                            .error(
                                    Code.WRONG_KIND,
                                    "The sign + adds numbers, here it stands beside a text that is not a number.")
                            .withHelp(
                                    "texts are joined in a template: \"{a} {b}\"; a decimal comma needs the type number(',') in the source"));
        }
        return texts || reported;
    }

    /** A text meets a number, and nothing else of another kind. */
    private void refuseUnlike(Expr.Binary binary, Type left, Type right) {
        Kind one = left.kind();
        Kind other = right.kind();
        if (one == null || other == null || one == other || !one.isScalar() || !other.isScalar()) {
            return;
        }
        boolean textAndNumber =
                (one == Kind.TEXT || one == Kind.NUMBER) && (other == Kind.TEXT || other == Kind.NUMBER);
        if (!textAndNumber) {
            Kind beside = one == Kind.TEXT ? other : one;
            checker.report(binary.span()
                    .error(
                            Code.WRONG_KIND,
                            "Values of unlike kinds cannot be compared: " + one.words() + " and " + other.words() + ".")
                    .withHelp(
                            one != Kind.TEXT && other != Kind.TEXT
                                    ? null
                                    : left.paths().isEmpty() && right.paths().isEmpty()
                                            ? "boolean(x), date(x), time(x) and datetime(x) make of a text what is meant"
                                            : beside == Kind.BOOLEAN
                                                    ? "a text is compared with a text, as in x == \"Y\"; or give the field the type boolean"
                                                    : "give the field its type in the source, such as "
                                                            + beside.name().toLowerCase(Locale.ROOT)));
        }
    }

    /** A key of a group, number or order: one value. */
    void key(Expr expr) {
        Type type = one(expr, Want.ANY);
        if (type.card() == Card.LIST) {
            checker.report(expr.span()
                    .error(Code.ONE_OR_MANY, "A key is one value, this is a list.")
                    .withHelp("several keys stand side by side: by a, b"));
        }
    }

    private static boolean isNothing(Expr expr) {
        return expr instanceof Expr.Literal literal && literal.value().isNothing();
    }

    private Type comparison(Expr.Binary binary) {
        if (isNothing(binary.left()) || isNothing(binary.right())) {
            foresee(binary.left());
            foresee(binary.right());
        }
        Type left = one(binary.left(), Want.ANY);
        Type right = one(binary.right(), Want.ANY);
        if (left.kind() == Kind.NUMBER && right.odd() || right.kind() == Kind.NUMBER && left.odd()) {
            checker.report(binary.span()
                    .error(Code.WRONG_KIND, "A number is compared with a text that is not a number.")
                    .withHelp("put both in quotes to compare texts"));
        }
        refuseUnlike(binary, left, right);
        boolean order = binary.operator() != Expr.Operator.EQUAL && binary.operator() != Expr.Operator.NOT_EQUAL;
        if (order && (isOrderOfQuotedNumber(binary.right(), left) || isOrderOfQuotedNumber(binary.left(), right))) {
            checker.report(binary.span()
                    .warning(Code.TEXT_COMPARED, "A number in quotes is a text, so that \"10\" comes before \"9\".")
                    .withHelp("leave the quotes out to compare numbers"));
        } else if (order && isNumericText(left) && isNumericText(right)) {
            checker.report(binary.span()
                    .warning(
                            Code.TEXT_COMPARED,
                            "Two texts are compared as texts, though the sample has only numbers here.")
                    .withHelp("give the fields the type number in the source, or write number(x)"));
        }
        return Type.of(Kind.BOOLEAN);
    }

    /** Whether these are texts of a source of which the sample shows only numbers, which are in another order as texts. */
    static boolean isNumericText(Type type) {
        return type.kind() == Kind.TEXT
                && !type.paths().isEmpty()
                && type.paths().stream()
                        .allMatch(p -> p.declared() == null
                                && p.shape() != null
                                && p.shape().isMisorderedAsText());
    }

    /** Whether texts are compared with a number in quotes, other than among codes that are in order as texts. */
    private static boolean isOrderOfQuotedNumber(Expr literal, Type other) {
        if (!(literal instanceof Expr.Literal quoted)
                || !(quoted.value() instanceof TextValue text)
                || NumberValue.parse(text.text()).isEmpty()
                || text.text().startsWith("0") && text.text().length() > 1) {
            return false;
        }
        boolean known = other.paths().stream().anyMatch(path -> path.shape() != null);
        return known ? isNumericText(other) : other.kind() == null || other.kind() == Kind.TEXT;
    }

    @Override
    public Type unary(Expr.Unary unary) {
        if (unary.negation()) {
            condition(unary.operand());
            return Type.of(Kind.BOOLEAN);
        }
        one(unary.operand(), Want.NUMBER);
        return Type.of(Kind.NUMBER);
    }
}
