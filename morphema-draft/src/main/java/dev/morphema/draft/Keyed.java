package dev.morphema.draft;

import dev.morphema.draft.Body.Node;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Makes of a loop that writes entries one that writes the fields of an object. */
final class Keyed {
    private Keyed() {}

    /**
     * {@return the loop with the rule of the key behind its clauses; empty if there is none for it}
     */
    static Optional<Body> of(Body entries) {
        if (entries.nodes().size() != 1 || !(entries.nodes().get(0) instanceof Body.FieldLoop loop)) {
            return Optional.empty();
        }
        Body.FieldRule key = null;
        List<Node> lets = new ArrayList<>();
        List<Node> values = new ArrayList<>();
        for (Node node : loop.body().nodes()) {
            if (node instanceof Body.FieldRule rule && rule.name().equals(Entries.KEY)) {
                key = rule;
            } else {
                (node instanceof Body.Let ? lets : values).add(node);
            }
        }
        List<Node> content = values.size() == 1 ? content(values.get(0), lets) : null;
        if (key == null || content == null || key.expression().startsWith("todo(") || uses(lets, key)) {
            return Optional.empty();
        }
        Body body = new Body(content, 0, 0, 0);
        String clause = loop.clause() + " keyed by " + DraftText.value(key);
        return Optional.of(new Body(
                List.of(new Body.FieldLoop(loop.name(), clause, body)),
                entries.right(),
                entries.total(),
                entries.cost()));
    }

    /** A key stands before the block, and knows none of its names. */
    private static boolean uses(List<Node> lets, Body.FieldRule key) {
        return lets.stream().anyMatch(let -> Names.isUsed(((Body.Let) let).name(), key.expression()));
    }

    private static @Nullable List<Node> content(Node value, List<Node> lets) {
        if (value instanceof Body.FieldRule rule && lets.isEmpty() && !rule.optional()) {
            return List.of(new Body.FieldRule("", rule.type(), false, rule.expression(), rule.remark()));
        }
        if (value instanceof Body.FieldRecord record && !record.optional()) {
            List<Node> nodes = new ArrayList<>(lets);
            nodes.addAll(record.body().nodes());
            return nodes;
        }
        return null;
    }
}
