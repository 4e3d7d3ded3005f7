package dev.morphema.yaml;

import dev.morphema.format.EditedText;
import java.util.List;
import java.util.stream.Collectors;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** Writes nodes of one YAML document as they would stand in another. Immutable. */
final class YamlLayout {
    private static final int STEP = 2;

    private final EditedText document;
    private final YamlNodes part;

    /**
     * An entry of a record.
     *
     * @param name its name
     * @param value a node of the part
     */
    record Entry(String name, Node value) {}

    /** @param part of which nodes are written */
    YamlLayout(EditedText document, YamlNodes part) {
        this.document = document;
        this.part = part;
    }

    /** {@return entries on lines of their own, each with the line end before it} */
    String blockEntries(List<Entry> entries, int column) {
        return entries.stream()
                .map(entry -> line(column) + blockEntry(key(entry.name()), entry.value(), column))
                .collect(Collectors.joining());
    }

    /** {@return items on lines of their own, each with the line end before it} */
    String blockItems(List<Node> items, int column) {
        return items.stream()
                .map(item -> line(column) + "- " + shifted(item, column + STEP))
                .collect(Collectors.joining());
    }

    /**
     * {@return an entry in place of another one}
     *
     * @param key its name as it is written
     * @param old the one that is there
     */
    String entryInPlace(String key, Node value, MappingNode record, NodeTuple old) {
        return YamlNodes.isFlow(record)
                ? key + ": " + flow(value)
                : blockEntry(key, value, YamlNodes.column(old.getKeyNode()));
    }

    private String blockEntry(String key, Node value, int column) {
        boolean lines = !(value instanceof ScalarNode) && !YamlNodes.isFlow(value) && !isEmpty(value);
        int inner = value instanceof SequenceNode ? column : column + STEP;
        return lines ? key + ":" + line(inner) + shifted(value, inner) : key + ": " + shifted(value, inner);
    }

    private static boolean isEmpty(Node node) {
        return node instanceof MappingNode mapping && mapping.getValue().isEmpty()
                || node instanceof SequenceNode list && list.getValue().isEmpty();
    }

    private String line(int column) {
        return document.lineEnd() + " ".repeat(column);
    }

    /** {@return a node as it is written, its lines moved to a column} */
    private String shifted(Node node, int column) {
        String written = part.text().substring(part.from(node), part.to(node));
        int own = node instanceof ScalarNode ? indentOf(node) + STEP : YamlNodes.column(node);
        StringBuilder moved = new StringBuilder();
        for (String line : written.split("\n", -1)) {
            if (moved.isEmpty()) {
                moved.append(line);
            } else if (line.isBlank()) {
                moved.append(document.lineEnd());
            } else {
                int blanks = Math.max(0, leading(line) + column - own);
                moved.append(document.lineEnd()).append(" ".repeat(blanks)).append(line.stripLeading());
            }
        }
        return moved.toString();
    }

    private int indentOf(Node node) {
        int line = part.text().lastIndexOf('\n', part.from(node) - 1) + 1;
        String rest = part.text().substring(line, part.from(node));
        int indent = leading(rest);
        // A text within the items of a list belongs to the item, not to the dash before it.
        while (rest.startsWith("- ", indent)) {
            indent += STEP;
        }
        return rest.isBlank() || rest.stripTrailing().endsWith("-") ? indent - STEP : indent;
    }

    private static int leading(String line) {
        return line.length() - line.stripLeading().length();
    }

    /** {@return entries of a record in braces} */
    String flowEntries(List<Entry> entries) {
        return entries.stream()
                .map(entry -> key(entry.name()) + ": " + flow(entry.value()))
                .collect(Collectors.joining(", "));
    }

    /** {@return items of a list in brackets} */
    String flowItems(List<Node> items) {
        return items.stream().map(this::flow).collect(Collectors.joining(", "));
    }

    private String flow(Node node) {
        if (node instanceof MappingNode mapping) {
            return mapping.getValue().stream()
                    .map(entry -> key(((ScalarNode) entry.getKeyNode()).getValue()) + ": " + flow(entry.getValueNode()))
                    .collect(Collectors.joining(", ", "{", "}"));
        }
        if (node instanceof SequenceNode list) {
            return list.getValue().stream().map(this::flow).collect(Collectors.joining(", ", "[", "]"));
        }
        ScalarNode scalar = (ScalarNode) node;
        return scalar.getTag().equals(Tag.STR) ? quoted(scalar.getValue()) : scalar.getValue();
    }

    private static String key(String name) {
        boolean plain = PlainTexts.isText(name) && name.matches("[\\p{L}\\p{N}_][\\p{L}\\p{N}_. -]*(?<! )");
        return plain ? name : quoted(name);
    }

    /** {@return a text in double quotes, with what cannot stand in them escaped} */
    private static String quoted(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        text.codePoints().forEach(c -> {
            if (c == '"' || c == '\\') {
                quoted.append('\\').appendCodePoint(c);
            } else if (c == '\n') {
                quoted.append("\\n");
            } else if (c < ' '
                    || c >= 0x7F && c < 0xA0
                    || c == 0x2028
                    || c == 0x2029
                    || c == 0xFEFF
                    || c == 0xFFFE
                    || c == 0xFFFF) {
                quoted.append(String.format("\\u%04X", c));
            } else {
                quoted.appendCodePoint(c);
            }
        });
        return quoted.append('"').toString();
    }
}
