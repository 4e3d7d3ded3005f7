package dev.morphema.yaml;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.Projection;
import dev.morphema.format.UsedFields;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberParser;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/**
 * Makes values of nodes, as far as the mapping uses them. What stands at an alias is counted each
 * time, so that a small document does not become a huge one. Not thread-safe.
 */
final class NodeValues {
    private final String name;
    private final Limits limits;
    /** Nodes that aliases may mean, as far as they were seen. */
    private final Set<Node> seen = Collections.newSetFromMap(new IdentityHashMap<>());

    /** How many of the nodes around were seen before. */
    private int again;
    /** What stands in nodes that are seen again. */
    private long characters;

    NodeValues(String name, Limits limits) {
        this.name = name;
        this.limits = limits;
    }

    Value value(Node node, Projection wanted, long record) {
        characters = 0;
        seen.clear();
        return value(node, wanted, record, 0);
    }

    private Value value(Node node, Projection wanted, long record, int depth) {
        if (depth > limits.most(Limit.DEPTH)) {
            throw limits.exceeded(Limit.DEPTH, YamlReader.location(name, mark(node)));
        }
        if (node.isRecursive()) {
            throw fault(node, "This holds itself by an alias.", null);
        }
        boolean repeated = node.getAnchor().isPresent() && !seen.add(node);
        again += repeated ? 1 : 0;
        Value value = made(node, wanted, record, depth);
        again -= repeated ? 1 : 0;
        return value;
    }

    private Value made(Node node, Projection wanted, long record, int depth) {
        if (node instanceof MappingNode mapping) {
            return record(mapping, wanted, record, depth);
        } else if (node instanceof SequenceNode list) {
            count(node, list.getValue().size());
            List<Value> items = new ArrayList<>();
            for (Node item : list.getValue()) {
                items.add(value(item, wanted, record, depth + 1));
            }
            return ListValue.owned(items);
        }
        ScalarNode scalar = (ScalarNode) node;
        count(node, scalar.getValue().length() + 1);
        return scalar(scalar);
    }

    private void count(Node node, int more) {
        characters += again > 0 ? more : 0;
        if (characters > limits.most(Limit.ENTITIES)) {
            throw limits.exceeded(Limit.ENTITIES, YamlReader.location(name, mark(node)));
        }
    }

    private Value record(MappingNode mapping, Projection wanted, long record, int depth) {
        UsedFields built = new UsedFields(wanted, new Origin(name, record, line(mapping)));
        count(mapping, mapping.getValue().size());
        for (NodeTuple entry : mapping.getValue()) {
            FieldName field = FieldName.of(key(entry.getKeyNode()));
            if (built.has(field)) {
                throw twice(entry.getKeyNode(), field);
            }
            if (built.uses(field)) {
                built.put(field, value(entry.getValueNode(), built.of(field), record, depth + 1));
            }
        }
        return built.build();
    }

    private String key(Node key) {
        if (key instanceof ScalarNode scalar) {
            return scalar.getValue();
        }
        throw fault(key, "The name of a field is a list or a record here.", "names of fields are texts");
    }

    private ProblemException twice(Node key, FieldName field) {
        return fault(key, "This record has the field " + field + " twice.", "each name stands once in a record");
    }

    private Value scalar(ScalarNode scalar) {
        String text = scalar.getValue();
        Tag tag = scalar.getTag();
        if (tag.equals(Tag.NULL)) {
            return Missing.NULL;
        } else if (tag.equals(Tag.BOOL)) {
            return BooleanValue.of(text.equalsIgnoreCase("true"));
        } else if (tag.equals(Tag.INT) || tag.equals(Tag.FLOAT)) {
            return number(text);
        }
        return TextValue.of(text);
    }

    /** Infinite numbers and those that are none stay texts: nothing calculates with them. */
    private static Value number(String text) {
        if (text.startsWith("0x")) {
            return NumberValue.of(new BigDecimal(new BigInteger(text.substring(2), 16)));
        } else if (text.startsWith("0o")) {
            return NumberValue.of(new BigDecimal(new BigInteger(text.substring(2), 8)));
        }
        NumberValue number = NumberParser.read(text);
        if (number != null) {
            return number;
        }
        try {
            return NumberValue.of(new BigDecimal(text));
        } catch (NumberFormatException e) {
            return TextValue.of(text);
        }
    }

    private static @Nullable Mark mark(Node node) {
        return node.getStartMark().orElse(null);
    }

    private static long line(Node node) {
        return node.getStartMark().map(mark -> mark.getLine() + 1L).orElse(0L);
    }

    private ProblemException fault(Node node, String message, @Nullable String help) {
        return new ProblemException(Problem.error(Code.BAD_YAML, message)
                .in(YamlReader.location(name, mark(node)))
                .withHelp(help));
    }
}
