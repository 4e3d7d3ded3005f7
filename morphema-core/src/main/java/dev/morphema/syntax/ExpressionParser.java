package dev.morphema.syntax;

import dev.morphema.value.BooleanValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Expressions, one method a rule of the grammar, loosest first:
 *
 * <pre>
 * expr     = block | "if" expr "then" expr [ "else" expr ] | or
 * or       = and { "or" and }
 * and      = not { "and" not }
 * not      = "not" not | compare
 * compare  = coalesce [ ( "==" | "!=" | "&lt;" | "&lt;=" | "&gt;" | "&gt;=" | "in" | "not" "in" )
 *            coalesce ]
 * coalesce = sum [ "??" ( block | coalesce ) ]
 * sum      = product { ( "+" | "-" ) product }
 * product  = unary { ( "*" | "/" | "%" ) unary }
 * unary    = "-" unary | path
 * path     = ( primary | "." step ) { "." step | "[" expr { "," expr } "]" }
 * </pre>
 *
 * A head is an expression that is not and does not end in a record, for where a block follows it.
 */
final class ExpressionParser {
    private static final Set<String> NEVER_A_NAME = Set.of(
            "and",
            "or",
            "not",
            "in",
            "if",
            "then",
            "else",
            "for",
            "true",
            "false",
            "null",
            "absent",
            "where",
            "let",
            "take",
            "numbered",
            "as");

    private static final Map<String, Value> WORDS = Map.of(
            "true", BooleanValue.TRUE,
            "false", BooleanValue.FALSE,
            "null", Missing.NULL,
            "absent", Missing.ABSENT);

    private static final Map<String, Expr.Operator> COMPARISONS = Map.of(
            "==", Expr.Operator.EQUAL,
            "!=", Expr.Operator.NOT_EQUAL,
            "<", Expr.Operator.LESS,
            "<=", Expr.Operator.AT_MOST,
            ">", Expr.Operator.MORE,
            ">=", Expr.Operator.AT_LEAST);

    private static final Map<String, Expr.Operator> SUMS = Map.of("+", Expr.Operator.PLUS, "-", Expr.Operator.MINUS);

    private static final Map<String, Expr.Operator> PRODUCTS = Map.of(
            "*", Expr.Operator.TIMES,
            "/", Expr.Operator.DIVIDE,
            "%", Expr.Operator.REMAINDER);

    private final Grammar grammar;
    private final Cursor cursor;
    /** Whether a record may stand here; not in a head, until a bracket opens. */
    private boolean records = true;

    ExpressionParser(Grammar grammar) {
        this.grammar = grammar;
        this.cursor = grammar.cursor;
    }

    Expr expr() {
        return within(true, this::loosest);
    }

    Expr head() {
        return within(false, this::loosest);
    }

    /**
     * What a loop goes over: a head without logic, comparison or fallback, which read better in
     * brackets.
     */
    Expr sequence() {
        return within(false, this::sum);
    }

    private Expr within(boolean recordsAllowed, Supplier<Expr> rule) {
        boolean before = records;
        records = recordsAllowed;
        cursor.enter();
        try {
            return rule.get();
        } finally {
            cursor.leave();
            records = before;
        }
    }

    private Expr loosest() {
        if (records && cursor.at("{")) {
            return record();
        }
        if (cursor.atWord("if")) {
            return ifThen();
        }
        return or();
    }

    private Expr record() {
        Block block = grammar.bodies.block();
        return new Expr.RecordOf(block.span(), block);
    }

    private Expr ifThen() {
        Token start = cursor.next();
        Expr condition = head();
        refuseRuleMark();
        cursor.expectWord("then", "after the condition");
        Expr then = nestedLoosest();
        if (cursor.atWord("else") && !cursor.wordIsFieldName()) {
            cursor.next();
            Expr otherwise = nestedLoosest();
            return new Expr.If(start.span().to(otherwise.span()), condition, then, otherwise);
        }
        return new Expr.If(start.span().to(then.span()), condition, then, null);
    }

    private Expr nestedLoosest() {
        return within(records, this::loosest);
    }

    /** {@code =} where a comparison was meant. */
    void refuseRuleMark() {
        if (cursor.at("=") && !cursor.last().firstOnLine()) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "A single = gives a field its rule; it compares nothing.",
                    "to compare, write ==");
        }
    }

    private Expr or() {
        return chain(this::and, () -> cursor.atInfix("or") ? Expr.Operator.OR : null);
    }

    private Expr and() {
        return chain(this::not, () -> cursor.atInfix("and") ? Expr.Operator.AND : null);
    }

    private Expr not() {
        if (!cursor.atWord("not")) {
            return compare();
        }
        Token start = cursor.next();
        Expr operand = within(records, this::not);
        return new Expr.Unary(start.span().to(operand.span()), true, operand);
    }

    private Expr compare() {
        Expr left = coalesce();
        Token token = cursor.peek();
        Expr.Operator operator = comparison();
        if (operator == null) {
            return left;
        }
        Expr compared = binary(operator, token, left, coalesce());
        if (comparisonFollows()) {
            throw Cursor.fault(cursor.peek().span(), "Comparisons do not chain.", "write a < b and b < c");
        }
        return compared;
    }

    private boolean comparisonFollows() {
        return cursor.peek().kind() == Token.Kind.SYMBOL
                && COMPARISONS.containsKey(cursor.peek().text());
    }

    private Expr.@Nullable Operator comparison() {
        if (comparisonFollows()) {
            return COMPARISONS.get(cursor.next().text());
        }
        if (cursor.atInfix("in")) {
            cursor.next();
            return Expr.Operator.IN;
        }
        if (cursor.atInfix("not") && cursor.peek(1).isWord("in")) {
            cursor.next();
            cursor.next();
            return Expr.Operator.NOT_IN;
        }
        return null;
    }

    private Expr coalesce() {
        Token first = cursor.peek();
        Expr left = sum();
        if (!cursor.at("??")) {
            return left;
        }
        refuseBareArithmetic(left, first);
        Token operator = cursor.next();
        Token second = cursor.peek();
        Expr right = records && cursor.at("{") ? record() : within(records, this::coalesce);
        refuseBareArithmetic(right, second);
        return binary(Expr.Operator.COALESCE, operator, left, right);
    }

    /** Whether {@code a + b ?? c} means one or the other is a guess; so neither is allowed. */
    private void refuseBareArithmetic(Expr side, Token first) {
        boolean bare = side instanceof Expr.Binary b
                && b.operator().isArithmetic()
                && b.span().start() == first.span().start();
        boolean bracketed = first.is("(") && side.span().start() != first.span().start();
        if (bare && !bracketed) {
            throw Cursor.fault(
                    ((Expr.Binary) side).operatorSpan(),
                    "Beside ??, a calculation needs parentheses.",
                    "write (a + b) ?? c, or a + (b ?? c)");
        }
    }

    private Expr sum() {
        return chain(this::product, () -> symbolOf(SUMS));
    }

    private Expr product() {
        return chain(this::unary, () -> symbolOf(PRODUCTS));
    }

    private Expr.@Nullable Operator symbolOf(Map<String, Expr.Operator> operators) {
        Token token = cursor.peek();
        return token.kind() == Token.Kind.SYMBOL ? operators.get(token.text()) : null;
    }

    /**
     * Operands between operators that bind alike, from the left. Each makes the tree one level
     * deeper.
     */
    private Expr chain(Supplier<Expr> operand, Supplier<Expr.@Nullable Operator> ahead) {
        int before = cursor.depth();
        Expr left = operand.get();
        for (Expr.Operator operator = ahead.get(); operator != null; operator = ahead.get()) {
            Token token = cursor.next();
            cursor.enter();
            left = binary(operator, token, left, operand.get());
        }
        cursor.depth(before);
        return left;
    }

    private static Expr binary(Expr.Operator operator, Token token, Expr left, Expr right) {
        return new Expr.Binary(left.span().to(right.span()), token.span(), operator, left, right);
    }

    private Expr unary() {
        if (!cursor.at("-")) {
            return path();
        }
        Token start = cursor.next();
        Expr operand = within(records, this::unary);
        return new Expr.Unary(start.span().to(operand.span()), false, operand);
    }

    /** A path: a primary, or a field of this block, with steps and look-ups. */
    Expr path() {
        int before = cursor.depth();
        Expr base = cursor.at(".") ? ownField() : primary();
        while ((cursor.at(".") || cursor.at("[")) && !cursor.peek().firstOnLine()) {
            cursor.enter();
            base = cursor.at(".") ? step(base) : lookup(base);
        }
        cursor.depth(before);
        return base;
    }

    private Expr ownField() {
        Token dot = cursor.next();
        Name name = cursor.expectFieldName("of a field further up in this block");
        return new Expr.OwnField(dot.span().to(name.span()), name);
    }

    private Expr step(Expr base) {
        cursor.next();
        Expr.Axis axis = Expr.Axis.FIELD;
        if (cursor.accept(".")) {
            axis = Expr.Axis.DEEP;
        } else if (cursor.accept("@")) {
            axis = Expr.Axis.ATTRIBUTE;
        }
        if (cursor.at("*") && axis != Expr.Axis.DEEP) {
            Token star = cursor.next();
            axis = axis == Expr.Axis.ATTRIBUTE ? Expr.Axis.ANY_ATTRIBUTE : Expr.Axis.ANY_FIELD;
            return new Expr.Step(base.span().to(star.span()), base, axis, new Name(star.span(), null, "*"));
        }
        Name name = cursor.expectFieldName("of a field after the point");
        grammar.steps.add(name.text());
        return new Expr.Step(base.span().to(name.span()), base, axis, name);
    }

    private Expr lookup(Expr base) {
        Token open = cursor.next();
        List<Expr> keys = new ArrayList<>();
        do {
            keys.add(expr());
        } while (cursor.accept(","));
        cursor.expectClosing("]", open);
        return new Expr.Lookup(base.span().to(cursor.last().span()), base, keys);
    }

    private Expr primary() {
        Token token = cursor.peek();
        return switch (token.kind()) {
            case NUMBER -> number();
            case RAW -> new Expr.Literal(cursor.next().span(), TextValue.of(token.text()));
            case TEXT -> new TemplateParser(grammar).template(cursor.next());
            case NAME -> named();
            case SYMBOL -> bracketed();
            case END -> throw cursor.unexpected("a value");
        };
    }

    private Expr number() {
        Token token = cursor.next();
        try {
            return new Expr.Literal(token.span(), NumberValue.of(new BigDecimal(token.text())));
        } catch (ArithmeticException e) {
            throw Cursor.fault(token.span(), "This number is too long.", "numbers have at most 2,000 digits");
        }
    }

    private Expr named() {
        Token token = cursor.peek();
        Value word = WORDS.get(token.text());
        if (word != null) {
            return new Expr.Literal(cursor.next().span(), word);
        }
        if (NEVER_A_NAME.contains(token.text())) {
            throw cursor.unexpected("a value");
        }
        cursor.next();
        return cursor.at("(") && !cursor.peek().firstOnLine()
                ? call(token)
                : new Expr.Reference(token.span(), token.text());
    }

    private Expr call(Token name) {
        Token open = cursor.next();
        List<Expr> arguments = items(open, ")");
        return new Expr.Call(name.span().to(cursor.last().span()), name.span(), name.text(), arguments);
    }

    private Expr bracketed() {
        if (cursor.at("[")) {
            Token open = cursor.next();
            List<Expr> items = items(open, "]");
            return new Expr.ListOf(open.span().to(cursor.last().span()), items);
        }
        if (cursor.at("(")) {
            Token open = cursor.next();
            Expr inner = cursor.atWord("for") ? loop(null) : expr();
            if (cursor.atWord("for")) {
                inner = loop(inner);
            }
            cursor.expectClosing(")", open);
            return inner;
        }
        if (cursor.at("{")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "A record cannot stand here.",
                    records
                            ? "a record is a whole value, not part of a calculation"
                            : "put the record in parentheses: ({ … })");
        }
        throw cursor.unexpected("a value");
    }

    /** The items of a call or a list: none, one with a loop, or some with commas between. */
    private List<Expr> items(Token open, String close) {
        List<Expr> items = new ArrayList<>();
        if (!cursor.at(close)) {
            if (cursor.atWord("for")) {
                items.add(loop(null));
            } else {
                do {
                    items.add(expr());
                } while (cursor.accept(","));
                if (items.size() == 1 && cursor.atWord("for")) {
                    items.set(0, loop(items.get(0)));
                }
            }
        }
        cursor.expectClosing(close, open);
        return items;
    }

    private Expr loop(@Nullable Expr yield) {
        Loop loop = grammar.loops.loop();
        if (cursor.at("=>")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "In an expression, what each turn gives stands before for.",
                    "write (value for x in values); the arrow belongs to a field: name for x in values => value");
        }
        if (cursor.at(",")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "A for that is not in brackets is all that a call or list holds.",
                    "put it into brackets: join([value for x in values], \", \")");
        }
        Span span = yield == null ? loop.span() : yield.span().to(loop.span());
        return new Expr.ForEach(span, yield, loop);
    }
}
