package dev.morphema.xml;

import com.ctc.wstx.api.WstxOutputProperties;
import com.ctc.wstx.stax.WstxOutputFactory;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLStreamWriter2;
import org.jspecify.annotations.Nullable;

/**
 * Writes one XML document. The outermost record is the document itself, so it has one field, the root element. Items of
 * a list are elements of the same name. Indentation is only put where an element has no text of its own.
 */
final class XmlDocumentWriter implements DocumentWriter {
    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";
    private static final int DEFAULT_INDENT = 2;

    /** Encodings of all characters, or for which the library writes references to those they lack. */
    private static final Set<Charset> WITH_REFERENCES = Set.of(
            StandardCharsets.UTF_8,
            StandardCharsets.UTF_16,
            StandardCharsets.UTF_16BE,
            StandardCharsets.UTF_16LE,
            StandardCharsets.ISO_8859_1,
            StandardCharsets.US_ASCII);

    private static final XMLOutputFactory FACTORY = factory();

    /** An element that is open; the outermost stands for the document. */
    private static final class Open {
        private @Nullable FieldName field;
        private boolean listed;
        private boolean lines;
        private final boolean mixed;

        Open(boolean mixed) {
            this.mixed = mixed;
        }
    }

    private final XMLStreamWriter2 xml;
    /** Where the library would write a question mark for a character that the encoding lacks: what it can hold. */
    private final @Nullable CharsetEncoder encodable;

    private final CharsetEncoder names;
    private final String defaultNamespace;
    private final Map<String, String> prefixes = new HashMap<>();
    private final int indent;
    private final Deque<Open> open = new ArrayDeque<>();
    private boolean rootWritten;

    XmlDocumentWriter(OutputStream out, Document document) throws IOException {
        Options options = document.options();
        this.defaultNamespace = options.text("namespace", "");
        this.indent = options.count("indent", DEFAULT_INDENT);
        document.prefixes().forEach((prefix, uri) -> prefixes.put(uri, prefix));
        Charset encoding = options.encoding();
        this.names = encoding.newEncoder();
        this.encodable = WITH_REFERENCES.contains(encoding) ? null : names;
        try {
            xml = (XMLStreamWriter2) FACTORY.createXMLStreamWriter(out, encoding.name());
            if (options.isOn("declaration", true)) {
                xml.writeRaw("<?xml version=\"1.0\" encoding=\"" + encoding.name() + "\"?>\n");
            }
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    private static XMLOutputFactory factory() {
        WstxOutputFactory factory = new WstxOutputFactory();
        factory.setProperty(WstxOutputProperties.P_AUTOMATIC_END_ELEMENTS, false);
        factory.setProperty(WstxOutputProperties.P_OUTPUT_VALIDATE_STRUCTURE, false);
        factory.setProperty(WstxOutputProperties.P_ADD_SPACE_AFTER_EMPTY_ELEM, false);
        factory.setProperty(WstxOutputProperties.P_USE_DOUBLE_QUOTES_IN_XML_DECL, true);
        return factory;
    }

    @Override
    public boolean attributesFirst() {
        return true;
    }

    /** A step of writing with the library's checked exception. */
    @FunctionalInterface
    private interface Writing {
        void run() throws XMLStreamException;
    }

    private static void guarded(Writing writing) {
        try {
            writing.run();
        } catch (XMLStreamException e) {
            Throwable cause = e.getNestedException() == null ? e.getCause() : e.getNestedException();
            throw new UncheckedIOException(cause instanceof IOException io ? io : new IOException(e));
        }
    }

    private Open at() {
        return Objects.requireNonNull(open.peek());
    }

    @Override
    public void beginRecord() {
        if (!open.isEmpty()) {
            startElement();
        }
        open.push(new Open(!open.isEmpty() && at().mixed));
    }

    @Override
    public void endRecord() {
        Open ended = open.pop();
        if (open.isEmpty()) {
            return;
        }
        if (ended.lines) {
            newLine(open.size() - 1);
        }
        guarded(xml::writeEndElement);
    }

    private void startElement() {
        Open parent = at();
        FieldName name = Objects.requireNonNull(parent.field);
        checkName(name);
        boolean root = open.size() == 1;
        if (root && rootWritten) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "An XML document has one root element, this would be a second.")
                            .withHelp("write one element around them all"));
        }
        rootWritten |= root;
        if (!root && indent > 0 && !parent.mixed) {
            newLine(open.size() - 1);
            parent.lines = true;
        }
        guarded(() -> {
            xml.writeStartElement(prefix(name.namespace()), name.local(), namespace(name));
            if (root) {
                declareNamespaces();
            }
        });
    }

    private void declareNamespaces() throws XMLStreamException {
        if (!defaultNamespace.isEmpty()) {
            xml.writeDefaultNamespace(defaultNamespace);
        }
        for (Map.Entry<String, String> declared : prefixes.entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .toList()) {
            xml.writeNamespace(declared.getValue(), declared.getKey());
        }
    }

    private String namespace(FieldName name) {
        return name.namespace() != null ? name.namespace() : name.attribute() ? "" : defaultNamespace;
    }

    private String prefix(@Nullable String namespace) {
        if (namespace == null || namespace.equals(defaultNamespace)) {
            return "";
        }
        String prefix = prefixes.get(namespace);
        if (prefix == null) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "The namespace of this element has no prefix in the mapping.")
                            .withValue(namespace)
                            .withHelp("declare one: prefix p = \"" + namespace + "\""));
        }
        return prefix;
    }

    private void newLine(int level) {
        guarded(() -> xml.writeCharacters("\n" + " ".repeat(level * indent)));
    }

    @Override
    public void beginList() {
        if (open.isEmpty() || at().listed) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "A list directly in a list has no element names in XML.")
                            .withHelp("give the inner list a field of its own"));
        }
        at().listed = true;
    }

    @Override
    public void endList() {
        at().listed = false;
    }

    @Override
    public void field(FieldName name) {
        at().field = name;
    }

    @Override
    public void value(Value value) {
        if (open.isEmpty()) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A value in XML needs an element around it."));
        }
        startElement();
        guarded(() -> {
            if (value.isNothing()) {
                if (!prefixes.containsKey(XSI)) {
                    xml.writeNamespace("xsi", XSI);
                }
                xml.writeAttribute(prefixes.getOrDefault(XSI, "xsi"), XSI, "nil", "true");
            } else {
                xml.writeCharacters(checked(value));
            }
            xml.writeEndElement();
        });
    }

    /** {@return the text of a value, all of whose characters can be written} */
    private String checked(Value value) {
        String text = value.toString();
        XmlCharacters.check(text);
        if (encodable != null && !encodable.canEncode(text)) {
            throw new ProblemException(Problem.error(
                            Code.NOT_WRITABLE, "This text has a character that the encoding of the target lacks.")
                    .withValue(text)
                    .withHelp("UTF-8 has all characters; ISO-8859-1 is written with references to those it lacks"));
        }
        return text;
    }

    private void checkName(FieldName name) {
        XmlCharacters.checkName(name);
        if (!names.canEncode(name.local())) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This name has a character that the encoding of the target lacks.")
                            .withValue(name.local())
                            .withHelp("UTF-8 has all characters"));
        }
    }

    @Override
    public void mixed() {
        if (!open.isEmpty() && !at().mixed) {
            open.pop();
            open.push(new Open(true));
        }
    }

    @Override
    public void attribute(FieldName name, Value value) {
        checkName(name);
        if (value.isNothing()) {
            return;
        }
        String text = checked(value);
        guarded(() -> {
            if (name.namespace() == null) {
                xml.writeAttribute(name.local(), text);
            } else {
                String prefix = name.namespace().equals("http://www.w3.org/XML/1998/namespace")
                        ? "xml"
                        : prefix(name.namespace());
                xml.writeAttribute(prefix, name.namespace(), name.local(), text);
            }
        });
    }

    @Override
    public void text(Value value) {
        if (value.isNothing()) {
            return;
        }
        if (open.size() < 2) {
            throw new ProblemException(Problem.error(Code.NOT_WRITABLE, "A text in XML needs an element around it."));
        }
        String text = checked(value);
        guarded(() -> xml.writeCharacters(text));
    }

    @Override
    public void finish() throws IOException {
        if (!rootWritten) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "An XML document has one root element, and none was written."));
        }
        try {
            xml.writeRaw("\n");
            xml.flush();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }
}
