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
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Iterator;
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
    /** What was read and not given yet: items of the only document, or documents. */
    private final Deque<Node> ready = new ArrayDeque<>();

    private boolean begun;
    private boolean sequence;
    private long number;

    YamlReader(Input input, Projection projection, Limits limits) throws IOException {
        this.name = input.name();
        this.projection = projection;
        this.values = new NodeValues(name, limits);
        this.bytes = input.open();
        LoadSettings settings = settings(name);
        this.documents = new Composer(
                settings, new ParserImpl(settings, new StreamReader(settings, new YamlUnicodeReader(bytes))));
    }

    /** {@return how all documents are read: all scalars by the core schema of YAML 1.2} */
    static LoadSettings settings(String name) {
        return LoadSettings.builder()
                .setLabel(name)
                .setSchema(new CoreSchema())
                .setCodePointLimit(Integer.MAX_VALUE)
                .setMaxAliasesForCollections(Integer.MAX_VALUE)
                .setAllowNonScalarKeys(true)
                .build();
    }

    @Override
    public boolean isSequence() throws IOException {
        begin();
        return sequence;
    }

    private void begin() throws IOException {
        if (begun) {
            return;
        }
        begun = true;
        Node first = nextDocument();
        if (first == null) {
            throw new ProblemException(
                    Problem.error(Code.BAD_YAML, "The input is empty; a YAML document is at least one value.")
                            .in(InputLocation.at(name, 1, 1)));
        }
        Node second = nextDocument();
        sequence = second != null || first instanceof SequenceNode;
        if (second == null && first instanceof SequenceNode list) {
            ready.addAll(list.getValue());
        } else {
            ready.add(first);
        }
        if (second != null) {
            ready.add(second);
        }
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
        begin();
        Node node = ready.isEmpty() ? nextDocument() : ready.remove();
        if (node == null) {
            return null;
        }
        number++;
        return values.value(node, projection, sequence ? number : 0);
    }

    @Override
    public void close() throws IOException {
        bytes.close();
    }

    /** {@return the place of a mark, which counts from 0} */
    static InputLocation location(String name, @Nullable Mark mark) {
        return mark == null
                ? InputLocation.at(name, 0, 0)
                : InputLocation.at(name, mark.getLine() + 1L, mark.getColumn() + 1);
    }
}
