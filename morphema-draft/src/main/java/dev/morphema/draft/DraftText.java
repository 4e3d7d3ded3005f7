package dev.morphema.draft;

import dev.morphema.draft.Body.Node;
import java.util.List;

/** Writes the statements of a draft. */
final class DraftText {
    private final StringBuilder out = new StringBuilder();

    private DraftText() {}

    /** {@return statements as a body holds them, one a line} */
    static String nodes(List<Node> nodes) {
        DraftText text = new DraftText();
        nodes.forEach(text::node);
        return text.out.toString();
    }

    private void node(Node node) {
        if (node instanceof Body.FieldRule rule) {
            rule(rule);
        } else if (node instanceof Body.FieldRecord record) {
            out.append(Names.field(record.name()))
                    .append(record.optional() ? "?" : "")
                    .append(" {\n");
            record.body().nodes().forEach(this::node);
            out.append("}\n");
        } else if (node instanceof Body.FieldLoop loop) {
            loop(loop);
        } else if (node instanceof Body.Let let) {
            out.append("let ")
                    .append(let.name())
                    .append(" = ")
                    .append(let.expression())
                    .append('\n');
        } else if (node instanceof Body.Conditional conditional) {
            out.append("if ").append(conditional.condition()).append(" {\n");
            conditional.nodes().forEach(this::node);
            out.append("}\n");
        }
    }

    private void rule(Body.FieldRule rule) {
        if (!rule.name().isEmpty()) {
            out.append(Names.field(rule.name())).append(rule.optional() ? "?" : "");
            out.append(rule.type().isEmpty() ? "" : ": " + rule.type()).append(' ');
        }
        out.append("= ").append(rule.name().isEmpty() ? value(rule) : rule.expression());
        out.append(rule.remark().isEmpty() ? "" : "  # " + rule.remark()).append('\n');
    }

    /** {@return a rule without a field, which a function converts} */
    static String value(Body.FieldRule rule) {
        String type = rule.type();
        int arguments = type.indexOf('(');
        if (type.isEmpty()) {
            return rule.expression();
        }
        return arguments < 0
                ? type + "(" + rule.expression() + ")"
                : type.substring(0, arguments + 1) + rule.expression() + ", " + type.substring(arguments + 1);
    }

    private void loop(Body.FieldLoop loop) {
        String name = loop.name().isEmpty() ? "" : Names.field(loop.name()) + " ";
        List<Node> nodes = loop.body().nodes();
        if (nodes.size() == 1
                && nodes.get(0) instanceof Body.FieldRule rule
                && rule.name().isEmpty()) {
            out.append(name).append(loop.clause()).append(" => ").append(value(rule));
            out.append(rule.remark().isEmpty() ? "" : "  # " + rule.remark()).append('\n');
            return;
        }
        out.append(name).append(loop.clause()).append(" {\n");
        nodes.forEach(this::node);
        out.append("}\n");
    }
}
