package dev.morphema.check;

import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.syntax.Expr;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import java.util.List;
import java.util.Locale;

/** Checks operators: what they combine must be of kinds that go together. */
final class OperatorChecker {
    private final Checker checker;
    private final ExpressionChecker expressions;
    private final Scope scope;

    OperatorChecker(Checker checker, Scope scope, ExpressionChecker expressions) {
        this.checker = checker;
        this.scope = scope;
        this.expressions = expressions;
    }

    Type binary(Expr.Binary binary) {
        switch (binary.operator()) {
            case OR, AND -> {
                expressions.condition(binary.left());
                expressions.condition(binary.right());
                return Type.of(Kind.BOOLEAN);
            }
            case EQUAL, NOT_EQUAL, LESS, AT_MOST, MORE, AT_LEAST -> {
                return comparison(binary);
            }
            case IN, NOT_IN -> {
                Type value = expressions.one(binary.left(), ParameterKind.ANY);
                checker.needs().whole(expressions.check(binary.right()));
                new ComparedCodes(checker).checkIn(value, binary.right());
                return Type.of(Kind.BOOLEAN);
            }
            case COALESCE -> {
                Type left = expressions.checkForeseen(binary.left());
                return left.or(expressions.check(binary.right()));
            }
            case PLUS, MINUS, TIMES, DIVIDE, REMAINDER -> {
                if (binary.operator() == Expr.Operator.DIVIDE && isPathWithSlashes(binary)) {
                    return Type.UNKNOWN;
                }
                if (binary.operator() == Expr.Operator.PLUS && addsTexts(binary)) {
                    return Type.of(Kind.NUMBER);
                }
                expressions.one(binary.left(), ParameterKind.NUMBER);
                expressions.one(binary.right(), ParameterKind.NUMBER);
                return Type.of(Kind.NUMBER);
            }
        }
        throw new IllegalStateException("no such operator");
    }

    /**
     * Whether a path is written as in a file system, which is reported once: its last step is no
     * known name.
     */
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
            expressions.check(start);
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
                texts |= expressions.one(side, ParameterKind.ANY).odd();
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
                                    : left.places().isEmpty() && right.places().isEmpty()
                                            ? "boolean(x), date(x), time(x) and datetime(x) make of a text what is meant"
                                            : beside == Kind.BOOLEAN
                                                    ? "a text is compared with a text, as in x == \"Y\"; or give the field the type boolean"
                                                    : "give the field its type in the source, such as "
                                                            + beside.name().toLowerCase(Locale.ROOT)));
        }
    }

    private static boolean isMissing(Expr expr) {
        return expr instanceof Expr.Literal literal && literal.value().isMissing();
    }

    private Type comparison(Expr.Binary binary) {
        if (isMissing(binary.left()) || isMissing(binary.right())) {
            expressions.foresee(binary.left());
            expressions.foresee(binary.right());
        }
        Type left = expressions.one(binary.left(), ParameterKind.ANY);
        Type right = expressions.one(binary.right(), ParameterKind.ANY);
        if (left.kind() == Kind.NUMBER && right.odd() || right.kind() == Kind.NUMBER && left.odd()) {
            checker.report(binary.span()
                    .error(Code.WRONG_KIND, "A number is compared with a text that is not a number.")
                    .in((left.odd() ? left : right).shown())
                    .withHelp("put both in quotes to compare texts"));
        }
        refuseUnlike(binary, left, right);
        boolean order = binary.operator() != Expr.Operator.EQUAL && binary.operator() != Expr.Operator.NOT_EQUAL;
        if (!order) {
            new ComparedCodes(checker).check(binary.left(), left, binary.right(), right);
        }
        if (order && (isOrderOfQuotedNumber(binary.right(), left) || isOrderOfQuotedNumber(binary.left(), right))) {
            checker.report(binary.span()
                    .warning(Code.TEXT_COMPARED, "A number in quotes is a text, so that \"10\" comes before \"9\".")
                    .withHelp("leave the quotes out to compare numbers"));
        } else if (order && isNumericText(left) && isNumericText(right)) {
            checker.report(binary.span()
                    .warning(
                            Code.TEXT_COMPARED,
                            "Two texts are compared as texts, though the sample has only numbers here.")
                    .in(left.shown())
                    .withHelp("give the fields the type number in the source, or write number(x)"));
        }
        return Type.of(Kind.BOOLEAN);
    }

    /**
     * Whether these are texts of a source of which the sample shows only numbers, which are in
     * another order as texts.
     */
    static boolean isNumericText(Type type) {
        return type.kind() == Kind.TEXT
                && !type.places().isEmpty()
                && type.places().stream()
                        .allMatch(p -> p.declared() == null
                                && p.shape() != null
                                && p.shape().isMisorderedAsText());
    }

    /**
     * Whether texts are compared with a number in quotes, other than among codes that are in order
     * as texts.
     */
    private static boolean isOrderOfQuotedNumber(Expr literal, Type other) {
        if (!(literal instanceof Expr.Literal quoted)
                || !(quoted.value() instanceof TextValue text)
                || NumberValue.parse(text.text()).isEmpty()
                || text.text().startsWith("0") && text.text().length() > 1) {
            return false;
        }
        boolean known = other.places().stream().anyMatch(path -> path.shape() != null);
        return known ? isNumericText(other) : other.kind() == null || other.kind() == Kind.TEXT;
    }

    Type unary(Expr.Unary unary) {
        if (unary.negation()) {
            expressions.condition(unary.operand());
            return Type.of(Kind.BOOLEAN);
        }
        expressions.one(unary.operand(), ParameterKind.NUMBER);
        return Type.of(Kind.NUMBER);
    }
}
