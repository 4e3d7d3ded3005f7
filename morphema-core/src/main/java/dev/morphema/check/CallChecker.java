package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.function.ParameterKind;
import dev.morphema.function.Signature;
import dev.morphema.function.Trait;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Expr;
import dev.morphema.value.Kind;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Checks calls of functions and defines. */
final class CallChecker {
    private final Checker checker;
    private final ExpressionChecker expressions;

    CallChecker(Checker checker, ExpressionChecker expressions) {
        this.checker = checker;
        this.expressions = expressions;
    }

    Type call(Expr.Call call) {
        Optional<Integer> define = checker.defines().find(call.name());
        if (define.isPresent()) {
            return defined(call, define.get());
        }
        Function function = checker.function(call.name());
        if (function == null) {
            call.arguments().forEach(expressions::check);
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
            call.arguments().forEach(expressions::check);
            checker.report(call.span()
                    .error(
                            Code.ARGUMENTS,
                            call.name() + " takes " + counted(signature) + ", given "
                                    + (given == 1 ? "is 1." : "are " + given + "."))
                    .withHelp(signature.text()));
            return Type.of(signature.result());
        }
        if (function.traits().has(Trait.ASKS_PRESENCE)) {
            call.arguments().forEach(expressions::foresee);
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
        List<Type> arguments = call.arguments().stream().map(expressions::check).toList();
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
            Type type =
                    expressions.one(argument, function.signature().parameter(i).kind());
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
            return PathChecker.anyField(first, field -> true).with(Cardinality.LIST);
        }
        if (function.traits().has(Trait.ENTRIES_OF_FIRST)) {
            return Type.record(Map.of("key", Type.of(Kind.TEXT), "value", PathChecker.anyField(first, field -> true)))
                    .with(Cardinality.LIST);
        }
        Kind result = function.signature().result();
        Cardinality cardinality = result == Kind.LIST ? Cardinality.LIST : Cardinality.ONE;
        return new Type(result == Kind.LIST ? null : result, cardinality, List.of(), null, false);
    }

    private Type aggregate(Expr.Call call, Function.Aggregate function) {
        Type items = expressions.check(call.arguments().get(0));
        if (function.traits().has(Trait.READS_ITEMS)) {
            checker.needs().whole(items);
        }
        for (int i = 1; i < call.arguments().size(); i++) {
            expressions.one(
                    call.arguments().get(i), function.signature().parameter(i).kind());
        }
        if (function.traits().has(Trait.NUMERIC_ITEMS)) {
            expressions.requireKind(call.arguments().get(0).span(), items.with(Cardinality.ONE), ParameterKind.NUMBER);
        }
        boolean orders = function.traits().has(Trait.ORDERS_ITEMS);
        if (orders && call.arguments().get(0) instanceof Expr.ListOf list) {
            refuseMixed(list);
        }
        if (orders && OperatorChecker.isNumericText(items)) {
            checker.report(call.span()
                    .warning(Code.TEXT_COMPARED, "This compares texts, though the sample has only numbers here.")
                    .in(items.shown())
                    .withHelp("give the field the type number in the source"));
        }
        Kind result = function.signature().result();
        if (function.traits().has(Trait.FORM_OF_FIRST)) {
            return items.with(result == Kind.LIST ? Cardinality.LIST : Cardinality.ONE);
        }
        return Type.of(result);
    }

    /** Values of several kinds have no order. */
    private void refuseMixed(Expr.ListOf list) {
        Kind first = null;
        for (Expr item : list.items()) {
            Kind kind = checker.typing().of(item).kind();
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
}
