package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.value.TextValue;
import java.util.ArrayList;
import java.util.List;

/** Makes expressions of texts that have expressions in braces. Not thread-safe. */
final class TemplateParser {
    private final Grammar grammar;

    TemplateParser(Grammar grammar) {
        this.grammar = grammar;
    }

    /** {@return what a text in double quotes stands for} */
    Expr template(Token token) {
        List<Expr> parts = new ArrayList<>();
        for (Token.Part part : token.parts()) {
            if (part instanceof Token.Plain plain) {
                addPart(parts, new Expr.Literal(token.span(), TextValue.of(plain.text())));
            } else if (part instanceof Token.Embedded embedded) {
                addPart(parts, embedded(token, embedded.tokens()));
            }
        }
        if (parts.isEmpty()) {
            return new Expr.Literal(token.span(), TextValue.EMPTY);
        }
        return parts.size() == 1 && parts.get(0) instanceof Expr.Literal literal && literal.value() instanceof TextValue
                ? literal
                : new Expr.Template(token.span(), parts);
    }

    /** A text that is embedded as an expression is a part of the text around it. */
    private static void addPart(List<Expr> parts, Expr part) {
        if (part instanceof Expr.Literal now
                && now.value() instanceof TextValue text
                && !parts.isEmpty()
                && parts.get(parts.size() - 1) instanceof Expr.Literal before
                && before.value() instanceof TextValue start) {
            parts.set(parts.size() - 1, new Expr.Literal(before.span(), TextValue.of(start.text() + text.text())));
        } else {
            parts.add(part);
        }
    }

    private Expr embedded(Token token, List<Token> tokens) {
        Token first = tokens.get(0);
        if (first.kind() == Token.Kind.END) {
            throw new SyntaxFault(token.span()
                    .error(Code.BAD_TEMPLATE, "The braces in this text hold no expression.")
                    .withHelp("write {{ and }} for braces in the text"));
        }
        if (first.kind() == Token.Kind.NUMBER
                && (tokens.size() == 2 || tokens.get(1).is(","))) {
            throw new SyntaxFault(first.span()
                    .error(
                            Code.BAD_TEMPLATE,
                            "In a text in double quotes, braces hold an expression, so this would print a number.")
                    .withHelp("write a pattern as a raw text in single quotes, as in '[A-Z]{3}'"));
        }
        Grammar inner = grammar.nested(grammar.cursor.nested(tokens));
        Expr expr = inner.expressions.expr();
        if (!inner.cursor.atEnd()) {
            throw inner.cursor.unexpected("} after the expression");
        }
        return expr;
    }
}
