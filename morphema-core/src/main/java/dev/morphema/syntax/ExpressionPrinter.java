package dev.morphema.syntax;

import dev.morphema.value.TextValue;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Prints expressions; every operand that is more than a path stands in parentheses, so that no rule
 * of order matters.
 */
final class ExpressionPrinter implements Expr.Visitor<String> {
    private final MappingPrinter mapping;

    ExpressionPrinter(MappingPrinter mapping) {
        this.mapping = mapping;
    }

    String print(Expr expr) {
        return expr.accept(this);
    }

    /** An operand: in parentheses unless it is one piece anyway. */
    private String operand(Expr expr) {
        boolean piece = !(expr instanceof Expr.Binary
                || expr instanceof Expr.Unary
                || expr instanceof Expr.If
                || expr instanceof Expr.RecordOf);
        return piece ? print(expr) : "(" + print(expr) + ")";
    }

    /** An expression before a block, which must not end in a record. */
    String head(Expr expr) {
        return operand(expr);
    }

    /** What a loop goes over. */
    String sequence(Expr expr) {
        return operand(expr);
    }

    /** A path, which may begin with a call or with anything in parentheses. */
    String path(Expr expr) {
        return operand(expr);
    }

    private String all(List<Expr> exprs) {
        return exprs.stream().map(this::print).collect(Collectors.joining(", "));
    }

    @Override
    public String literal(Expr.Literal literal) {
        return MappingPrinter.literal(literal);
    }

    @Override
    public String template(Expr.Template template) {
        StringBuilder text = new StringBuilder("\"");
        for (Expr part : template.parts()) {
            if (part instanceof Expr.Literal literal && literal.value() instanceof TextValue plain) {
                text.append(MappingPrinter.escaped(plain.text()));
            } else {
                // An expression in a template stays on its line.
                text.append('{').append(print(part).replaceAll("\\n\\s*", " ")).append('}');
            }
        }
        return text.append('"').toString();
    }

    @Override
    public String reference(Expr.Reference reference) {
        return reference.name();
    }

    @Override
    public String ownField(Expr.OwnField field) {
        return "." + MappingPrinter.name(field.name());
    }

    @Override
    public String step(Expr.Step step) {
        String mark =
                switch (step.axis()) {
                    case FIELD, ANY_FIELD -> ".";
                    case ATTRIBUTE, ANY_ATTRIBUTE -> ".@";
                    case DEEP -> "..";
                };
        boolean any = step.axis() == Expr.Axis.ANY_FIELD || step.axis() == Expr.Axis.ANY_ATTRIBUTE;
        return operand(step.base()) + mark + (any ? "*" : MappingPrinter.name(step.name()));
    }

    @Override
    public String lookup(Expr.Lookup lookup) {
        return operand(lookup.base()) + "[" + all(lookup.keys()) + "]";
    }

    @Override
    public String call(Expr.Call call) {
        return call.name() + "(" + all(call.arguments()) + ")";
    }

    @Override
    public String forEach(Expr.ForEach forEach) {
        String loop = mapping.loop(forEach.loop());
        return forEach.yield() == null ? "(" + loop + ")" : "(" + operand(forEach.yield()) + " " + loop + ")";
    }

    @Override
    public String listOf(Expr.ListOf list) {
        return "[" + all(list.items()) + "]";
    }

    @Override
    public String recordOf(Expr.RecordOf recordOf) {
        return mapping.block(recordOf.block());
    }

    @Override
    public String ifThen(Expr.If ifThen) {
        String otherwise = ifThen.otherwise() == null ? "" : " else " + operand(ifThen.otherwise());
        return "if " + head(ifThen.condition()) + " then " + operand(ifThen.then()) + otherwise;
    }

    @Override
    public String binary(Expr.Binary binary) {
        return operand(binary.left()) + " " + binary.operator().spelling() + " " + operand(binary.right());
    }

    @Override
    public String unary(Expr.Unary unary) {
        return (unary.negation() ? "not " : "-") + operand(unary.operand());
    }
}
