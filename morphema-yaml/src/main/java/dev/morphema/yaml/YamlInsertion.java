package dev.morphema.yaml;

import dev.morphema.format.EditedText;
import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * Puts a YAML document into another one, laid out as what stands around it. What came of it is read
 * again and compared, since a text may mean several things at once by an alias. Of use once.
 */
final class YamlInsertion {
    private final String name;
    private final YamlNodes nodes;
    private final EditedText document;
    private final YamlNodes partNodes;
    private final Node part;
    private final YamlLayout layout;
    private final Insertion insertion;

    private YamlInsertion(String name, String text, String part, Insertion insertion) {
        this.name = name;
        this.nodes = YamlNodes.of(name, text);
        this.document = new EditedText(name, text);
        this.partNodes = YamlNodes.of("the result", part);
        this.part = Objects.requireNonNull(partNodes.root());
        this.layout = new YamlLayout(document, partNodes);
        this.insertion = insertion;
    }

    /**
     * {@return the document with the part in it}
     *
     * @param name of the document
     * @throws ProblemException if the part cannot be put there, or the document is not well-formed
     */
    static String of(String name, String text, String part, Insertion insertion) {
        YamlInsertion inserting = new YamlInsertion(name, text, part, insertion);
        inserting.insert();
        String result = inserting.document.result();
        inserting.compare(result);
        return result;
    }

    private void insert() {
        Node at = nodes.root();
        List<String> path = insertion.path();
        if (at == null || at instanceof ScalarNode && YamlNodes.isNull(at)) {
            throw insertion.noRecord(List.of(), document.location(0));
        }
        for (int i = 0; i < path.size(); i++) {
            if (!(at instanceof MappingNode record)) {
                throw insertion.noRecord(path.subList(0, i), document.location(nodes.from(at)));
            }
            NodeTuple entry = YamlNodes.entry(record, path.get(i));
            if (entry == null && i < path.size() - 1) {
                throw Insertion.unknown(path.get(i), YamlNodes.names(record), document.location(nodes.from(at)));
            }
            if (entry == null) {
                append(record, List.of(new YamlLayout.Entry(path.get(i), part)));
                return;
            }
            if (i == path.size() - 1) {
                intoEntry(path, record, entry, part, true);
                return;
            }
            at = entry.getValueNode();
        }
        if (at instanceof MappingNode record && part instanceof MappingNode) {
            intoRecord(record);
        } else if (at instanceof SequenceNode list
                && part instanceof SequenceNode more
                && insertion.existing() == Existing.EXTENDED) {
            extend(list, more);
        } else {
            throw insertion.refused(path, document.location(nodes.from(at)));
        }
    }

    /** Each entry of the part becomes one of the record. */
    private void intoRecord(MappingNode record) {
        List<YamlLayout.Entry> more = new ArrayList<>();
        for (NodeTuple entry : ((MappingNode) part).getValue()) {
            String key = ((ScalarNode) entry.getKeyNode()).getValue();
            NodeTuple known = YamlNodes.entry(record, key);
            if (known == null) {
                more.add(new YamlLayout.Entry(key, entry.getValueNode()));
            } else {
                List<String> path = new ArrayList<>(insertion.path());
                path.add(key);
                intoEntry(path, record, known, entry.getValueNode(), false);
            }
        }
        append(record, more);
    }

    /**
     * A value comes where another one is.
     *
     * @param merges whether entries of a record come into one that is there
     */
    private void intoEntry(List<String> path, MappingNode record, NodeTuple entry, Node value, boolean merges) {
        Node known = entry.getValueNode();
        if (merges && known instanceof MappingNode inner && value instanceof MappingNode) {
            intoRecord(inner);
        } else if (YamlNodes.isNull(known) || insertion.existing() == Existing.REPLACED) {
            int from = nodes.from(entry.getKeyNode());
            int to = Math.max(nodes.to(entry.getKeyNode()), nodes.to(known));
            if (to == nodes.to(entry.getKeyNode()) || nodes.from(known) == nodes.to(known)) {
                to = document.text().indexOf(':', nodes.to(entry.getKeyNode())) + 1;
            }
            String key = document.text().substring(from, nodes.to(entry.getKeyNode()));
            document.replace(from, to, layout.entryInPlace(key, value, record, entry));
        } else if (insertion.existing() == Existing.EXTENDED
                && known instanceof SequenceNode list
                && value instanceof SequenceNode more) {
            extend(list, more);
        } else {
            throw insertion.refused(path, document.location(nodes.from(entry.getKeyNode())));
        }
    }

    private void append(MappingNode record, List<YamlLayout.Entry> more) {
        if (more.isEmpty()) {
            return;
        }
        if (YamlNodes.isFlow(record) || record.getValue().isEmpty()) {
            appendFlow(record, record.getValue().isEmpty(), layout.flowEntries(more));
            return;
        }
        int end = document.endOfLine(nodes.to(record));
        int column = YamlNodes.column(record.getValue().get(0).getKeyNode());
        document.replace(end, end, layout.blockEntries(more, column));
    }

    private void extend(SequenceNode list, SequenceNode more) {
        if (more.getValue().isEmpty()) {
            return;
        }
        if (YamlNodes.isFlow(list) || list.getValue().isEmpty()) {
            appendFlow(list, list.getValue().isEmpty(), layout.flowItems(more.getValue()));
            return;
        }
        int end = document.endOfLine(nodes.to(list));
        document.replace(end, end, layout.blockItems(more.getValue(), YamlNodes.column(list)));
    }

    /** Before the closing bracket, which is the last character. */
    private void appendFlow(Node container, boolean empty, String more) {
        int to = nodes.to(container) - 1;
        String text = document.text();
        while (!empty && Character.isWhitespace(text.charAt(to - 1))) {
            to--;
        }
        int from = empty ? nodes.from(container) + 1 : to;
        boolean comma = !empty && text.charAt(to - 1) != ',';
        document.replace(from, to, (comma ? ", " : empty ? "" : " ") + more);
    }

    private void compare(String result) {
        Node after;
        try {
            after = YamlNodes.of(name, result).root();
        } catch (ProblemException e) {
            throw notThere(e);
        }
        Object before = YamlMeaning.of(nodes.root());
        Object expected = YamlMeaning.with(before, insertion, YamlMeaning.of(part));
        if (!expected.equals(YamlMeaning.of(after))) {
            throw notThere(null);
        }
    }

    private ProblemException notThere(@Nullable ProblemException cause) {
        return new ProblemException(
                Problem.error(
                                Code.NOT_WRITTEN,
                                "What stands here is written in a way that nothing can be put into it without changing something else.")
                        .in(document.location(nodes.root() == null ? 0 : nodes.from(nodes.root())))
                        .withHelp(
                                "is there an alias, or a text over several lines? The place can be written in blocks"),
                cause);
    }
}
