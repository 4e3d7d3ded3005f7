package dev.morphema.yaml;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.ReaderException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.CollectionNode;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/** The nodes of one YAML document with their places in its text. Immutable. */
final class YamlNodes {
    private final String text;
    private final @Nullable Node root;
    /** Whether each character is one of Java's, so that places need not be converted. */
    private final boolean plain;

    private YamlNodes(String text, @Nullable Node root) {
        this.text = text;
        this.root = root;
        this.plain = text.codePoints().allMatch(c -> c <= Character.MAX_VALUE);
    }

    /**
     * {@return the nodes of a text}
     *
     * @param name of the document, for problems
     * @throws ProblemException if it is not well-formed, or there are several documents in it
     */
    static YamlNodes of(String name, String text) {
        LoadSettings settings = YamlReader.settings(name);
        try {
            Iterator<Node> documents =
                    new Composer(settings, new ParserImpl(settings, new StreamReader(settings, text)));
            Node root = documents.hasNext() ? documents.next() : null;
            if (documents.hasNext()) {
                throw new ProblemException(Problem.error(Code.NOT_WRITTEN, "There are several documents in this file.")
                        .in(YamlReader.location(
                                name, documents.next().getStartMark().orElse(null)))
                        .withHelp("something can be put into a file of one document"));
            }
            return new YamlNodes(text, root);
        } catch (MarkedYamlEngineException e) {
            throw YamlFaults.notWellFormed(name, e);
        } catch (ReaderException e) {
            throw new ProblemException(YamlFaults.character(name, e), e);
        } catch (YamlEngineException e) {
            throw new ProblemException(
                    Problem.error(Code.BAD_YAML, "This YAML cannot be read: " + e.getMessage() + ".")
                            .in(InputLocation.at(name, 0, 0)),
                    e);
        }
    }

    String text() {
        return text;
    }

    /** {@return the outermost node, or null if there is none} */
    @Nullable
    Node root() {
        return root;
    }

    int from(Node node) {
        return place(node.getStartMark().orElseThrow());
    }

    private int place(Mark mark) {
        return plain ? mark.getIndex() : text.offsetByCodePoints(0, mark.getIndex());
    }

    /** {@return the column of a node, from 0} */
    static int column(Node node) {
        return node.getStartMark().orElseThrow().getColumn();
    }

    /** {@return the place behind the last character of a node; comments behind it are none} */
    int to(Node node) {
        if (node instanceof MappingNode mapping
                && !isFlow(node)
                && !mapping.getValue().isEmpty()) {
            List<NodeTuple> entries = mapping.getValue();
            NodeTuple last = entries.get(entries.size() - 1);
            return Math.max(to(last.getKeyNode()), to(last.getValueNode()));
        }
        if (node instanceof SequenceNode list
                && !isFlow(node)
                && !list.getValue().isEmpty()) {
            return to(list.getValue().get(list.getValue().size() - 1));
        }
        int end = place(node.getEndMark().orElseThrow());
        return node instanceof ScalarNode scalar && isBlock(scalar) ? endOfBlock(scalar, end) : end;
    }

    private static boolean isBlock(ScalarNode scalar) {
        return scalar.getScalarStyle() == ScalarStyle.LITERAL || scalar.getScalarStyle() == ScalarStyle.FOLDED;
    }

    /** A block text has its line ends behind it, which count if its head says so. */
    private int endOfBlock(ScalarNode scalar, int end) {
        String head = text.substring(from(scalar), Math.min(end, text.length()))
                .lines()
                .findFirst()
                .orElse("");
        int at = end;
        boolean keeps = head.split("#", 2)[0].contains("+");
        while (at > from(scalar) && Character.isWhitespace(text.charAt(at - 1))) {
            at--;
            if (keeps && text.charAt(at) == '\n') {
                break;
            }
        }
        return at;
    }

    static boolean isFlow(Node node) {
        return node instanceof CollectionNode<?> collection && collection.getFlowStyle() == FlowStyle.FLOW;
    }

    /** {@return whether nothing is written here, or a null} */
    static boolean isNull(Node node) {
        return node.getTag().equals(Tag.NULL);
    }

    /** {@return the entry of a name, or null} */
    static @Nullable NodeTuple entry(MappingNode mapping, String name) {
        return mapping.getValue().stream()
                .filter(entry -> entry.getKeyNode() instanceof ScalarNode key
                        && key.getValue().equals(name))
                .findFirst()
                .orElse(null);
    }

    /** {@return the names of the entries} */
    static List<String> names(MappingNode mapping) {
        return mapping.getValue().stream()
                .map(NodeTuple::getKeyNode)
                .filter(ScalarNode.class::isInstance)
                .map(key -> ((ScalarNode) key).getValue())
                .toList();
    }
}
