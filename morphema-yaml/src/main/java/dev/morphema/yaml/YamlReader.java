package dev.morphema.yaml;

import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.util.Collections;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.YamlUnicodeReader;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.ReaderException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;
import org.snakeyaml.engine.v2.schema.CoreSchema;

/** Reads the documents of one YAML stream. Not thread-safe. */
final class YamlReader implements RecordReader {
    private final String name;
    private final Projection projection;
    private final NodeValues values;
    private final InputStream bytes;
    private final Iterator<Node> documents;
    /** What comes next: the items of the only document, or the documents, one looked ahead. */
    private @Nullable Iterator<Node> items;

    private boolean sequence;
    private long number;

    YamlReader(Input input, Projection projection, Limits limits) throws IOException {
        this.name = input.name();
        this.projection = projection;
        this.values = new NodeValues(name, limits);
        this.bytes = input.open();
        LoadSettings settings = LoadSettings.builder()
                .setLabel(name)
                .setSchema(new CoreSchema())
                .setCodePointLimit(Integer.MAX_VALUE)
                .setMaxAliasesForCollections(Integer.MAX_VALUE)
                .setAllowNonScalarKeys(true)
                .build();
        this.documents = new Composer(
                settings, new ParserImpl(settings, new StreamReader(settings, new YamlUnicodeReader(bytes))));
    }

    @Override
    public boolean isSequence() throws IOException {
        begin();
        return sequence;
    }

    private Iterator<Node> begin() throws IOException {
        if (items != null) {
            return items;
        }
        Node first = nextDocument();
        if (first == null) {
            throw new ProblemException(
                    Problem.error(Code.BAD_YAML, "The input is empty; a YAML document is at least one value.")
                            .in(InputLocation.at(name, 1, 1)));
        }
        Node second = nextDocument();
        if (second == null) {
            sequence = first instanceof SequenceNode;
            List<Node> only = first instanceof SequenceNode list ? list.getValue() : List.of(first);
            items = only.iterator();
        } else {
            sequence = true;
            items = new Documents(first, second);
        }
        return items;
    }

    private @Nullable Node nextDocument() throws IOException {
        try {
            return documents.hasNext() ? documents.next() : null;
        } catch (MarkedYamlEngineException e) {
            throw YamlFaults.notWellFormed(name, e);
        } catch (ReaderException e) {
            throw new ProblemException(YamlFaults.character(name, e), e);
        } catch (YamlEngineException | UncheckedIOException e) {
            if (e.getCause() instanceof CharacterCodingException) {
                throw new ProblemException(YamlFaults.encoding(name), e);
            }
            throw e.getCause() instanceof IOException io ? io : new IOException(e.getMessage(), e);
        } catch (StackOverflowError e) {
            throw new ProblemException(
                    Problem.error(Code.LIMIT, "The lists and records of this document are nested too deeply.")
                            .in(InputLocation.at(name, 0, 0)),
                    e);
        }
    }

    @Override
    public @Nullable Value next() throws IOException {
        Iterator<Node> left = begin();
        try {
            if (!left.hasNext()) {
                return null;
            }
            Node node = left.next();
            number++;
            return values.value(node, projection, sequence ? number : 0);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    @Override
    public void close() throws IOException {
        bytes.close();
    }

    /** Documents one after the other, each read when the one before has been given. */
    private final class Documents implements Iterator<Node> {
        private @Nullable Node first;
        private @Nullable Node ahead;

        Documents(Node first, Node second) {
            this.first = first;
            this.ahead = second;
        }

        @Override
        public boolean hasNext() {
            return first != null || ahead != null;
        }

        @Override
        public Node next() {
            Node given = first;
            if (given != null) {
                first = null;
                return given;
            }
            given = ahead;
            try {
                ahead = nextDocument();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return given == null ? Collections.<Node>emptyIterator().next() : given;
        }
    }

    /** {@return the place of a mark, which counts from 0} */
    static InputLocation location(String name, @Nullable Mark mark) {
        return mark == null
                ? InputLocation.at(name, 0, 0)
                : InputLocation.at(name, mark.getLine() + 1L, mark.getColumn() + 1);
    }
}
